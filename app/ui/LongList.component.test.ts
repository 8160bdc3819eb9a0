import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick } from 'vue'
import LongList from './LongList.vue'

/** A page of a thousand rows of fifty pixels; the test's own browser lays nothing out, so sizes are told. */
const HEIGHT = 50
const NAMES = Array.from({ length: 1000 }, (_, i) => `Row ${i}`)

const Page = defineComponent({
  props: { names: { type: Array<string>, default: () => NAMES } },
  setup: props => () =>
    h(LongList<string>, { items: props.names, keyOf: (n: string) => n, rowHeight: HEIGHT }, {
      default: ({ item }: { readonly item: string }) => h('button', item),
    }),
})

const shown = (page: ReturnType<typeof mount>) => page.findAll('button').map(b => b.text())
/** Its first rows come a few a frame. */
async function opened(): Promise<ReturnType<typeof mount>> {
  const page = mount(Page, { attachTo: document.body })
  expect(shown(page).length).toBeLessThan(10)
  await vi.waitFor(() => expect(shown(page).length).toBeGreaterThan(10))
  return page
}
async function scrollTo(y: number): Promise<void> {
  Object.defineProperty(window, 'scrollY', { value: y, configurable: true })
  window.dispatchEvent(new Event('scroll'))
  await nextTick()
}

beforeEach(() => {
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(HEIGHT)
})
afterEach(() => scrollTo(0))

describe('a long list', () => {
  it('draws what is near the window, and tells how many there are', async () => {
    const page = await opened()
    expect(shown(page)[0]).toBe('Row 0')
    expect(shown(page).length).toBeLessThan(40)
    expect(page.get('li').attributes()).toMatchObject({ 'aria-setsize': '1000', 'aria-posinset': '1' })
    expect(page.get('ul').attributes('style')).toContain(`height: ${1000 * HEIGHT}px`)
    page.unmount()
  })

  it('keeps the row that holds the focus when the page is turned away from it', async () => {
    const page = await opened()
    page.findAll('button')[2]!.element.focus()
    await scrollTo(500 * HEIGHT)
    expect(shown(page)).toContain('Row 500')
    expect(shown(page)).toContain('Row 2')
    expect(shown(page)).not.toContain('Row 3')
    expect(document.activeElement?.textContent).toBe('Row 2')
    page.unmount()
  })

  it('follows its rows as they come and go', async () => {
    const page = await opened()
    await page.setProps({ names: ['one', 'two'] })
    expect(shown(page)).toEqual(['one', 'two'])
    await page.setProps({ names: [] })
    expect(shown(page)).toEqual([])
    page.unmount()
  })
})
