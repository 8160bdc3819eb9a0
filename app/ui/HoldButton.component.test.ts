import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import HoldButton from './HoldButton.vue'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())
const button = () => mount(HoldButton, { props: { ms: 700 }, slots: { default: 'All poured' } })
const held = (b: ReturnType<typeof button>) => b.emitted('held')?.length ?? 0

describe('a button that must be held', () => {
  it('a pointer has to stay on it, and its click alone is nothing', async () => {
    const b = button()
    await b.trigger('pointerdown')
    vi.advanceTimersByTime(699)
    expect(held(b)).toBe(0)
    vi.advanceTimersByTime(1)
    expect(held(b)).toBe(1)
    await b.trigger('pointerup')
    await b.trigger('click', { detail: 1, pointerType: 'mouse' })
    expect(held(b)).toBe(1)
  })

  it.each(['pointerup', 'pointerleave', 'pointercancel'])('%s before its time takes the press back', async (end) => {
    const b = button()
    await b.trigger('pointerdown')
    vi.advanceTimersByTime(300)
    await b.trigger(end)
    vi.advanceTimersByTime(2000)
    expect(held(b)).toBe(0)
  })

  it('a key, a screen reader or a switch presses it once', async () => {
    const b = button()
    await b.trigger('click', { detail: 0 })
    expect(held(b)).toBe(1)
    await b.trigger('click', { detail: 1, pointerType: '' })
    expect(held(b)).toBe(2)
  })

  it('a key that is held down presses no second time', async () => {
    const b = button(), prevented = (repeat: boolean) => {
      const press = new KeyboardEvent('keydown', { key: 'Enter', repeat, cancelable: true })
      b.element.dispatchEvent(press)
      return press.defaultPrevented
    }
    expect([prevented(false), prevented(true)]).toEqual([false, true])
  })

  it('gone from the page it says nothing more', async () => {
    const b = button()
    await b.trigger('pointerdown')
    b.unmount()
    vi.advanceTimersByTime(2000)
    expect(held(b)).toBe(0)
  })
})
