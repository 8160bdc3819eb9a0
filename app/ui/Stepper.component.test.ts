import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import Stepper from './Stepper.vue'

const stepper = (props: object) => mount(Stepper, { props: { label: 'Layers', modelValue: 1, ...props } })
type Made = ReturnType<typeof stepper>
const told = (s: Made) => s.emitted<[number]>('update:modelValue')?.map(([v]) => v) ?? []
async function type(s: Made, text: string) {
  const box = s.get('input')
  await box.setValue(text)
  await box.trigger('change')
}

describe('a stepper', () => {
  it('goes up and down by its step and stops at its ends', async () => {
    const s = stepper({ modelValue: 2, min: 1, max: 3 })
    const [less, more] = s.findAll('button')
    await more!.trigger('click')
    await less!.trigger('click')
    expect(told(s)).toEqual([3, 2])
    await more!.trigger('click')
    expect(more!.attributes('disabled')).toBeDefined()
    expect(less!.attributes('disabled')).toBeUndefined()
  })

  it('half steps take a decimal, with point or comma, and ask the phone for its keys', async () => {
    const s = stepper({ step: 0.5, max: 10 })
    expect(s.get('input').attributes('inputmode')).toBe('decimal')
    await type(s, '2.5')
    await type(s, '3,5 scoops')
    await type(s, '2.4')
    expect(told(s)).toEqual([2.5, 3.5, 2.5])
    expect(stepper({}).get('input').attributes('inputmode')).toBe('numeric')
  })

  it('what is no number, or beyond its ends, leaves what was', async () => {
    const s = stepper({ modelValue: 2, max: 9 })
    await type(s, 'many')
    expect(told(s)).toEqual([])
    expect((s.get('input').element as HTMLInputElement).value).toBe('2')
    await type(s, '400')
    expect(told(s)).toEqual([9])
  })
})
