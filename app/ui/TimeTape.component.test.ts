import { mount } from '@vue/test-utils'
import { nextTick } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import TimeTape from './TimeTape.vue'

const tape = {
  acts: [
    { id: 'sift', end: 150, done: false }, { id: 'soak', end: 270, done: false }, { id: 'stir', end: 390, done: false },
    { id: 'fill', end: 480, done: false },
  ],
  gloss: 960, warmest: 1800, open: { from: 3600, to: 5400 }, stiff: 600,
} as const

/** How wide a letter of 14 px is, px. */
const LETTER = 8
/** A box that is laid out so wide. */
function laidOut(width: number) {
  vi.stubGlobal('ResizeObserver', class {
    constructor(private readonly tell: (entries: object[]) => void) {}
    observe() {
      this.tell([{ contentRect: { width } }])
    }

    disconnect() {}
  })
}
async function drawn(props: object = {}) {
  const made = mount(TimeTape, { props: { tape, ...props } })
  await nextTick()
  await nextTick()
  return made
}

describe('the tape of time', () => {
  beforeEach(() => laidOut(700))
  afterEach(() => vi.unstubAllGlobals())

  it('says in one sentence what it shows, and writes the acts that fit', async () => {
    const made = await drawn()
    expect(made.get('[role=img]').attributes('aria-label')).toMatch(/sift until 2 min 30 s.*open after 1 h – 1 h 30\.$/)
    expect(made.findAll('text.word').map(t => t.text())).toEqual(['Sift', 'Soak', 'Stir', 'Leave it alone', 'Open'])
    expect(made.find('.needle').exists()).toBe(false)
  })

  it('on a narrow one leaves out words that would not fit, and none overlaps the next', async () => {
    laidOut(300)
    const words = (await drawn()).findAll('text.word').map(t => ({
      text: t.text(), middle: Number(t.attributes('x')), half: LETTER * t.text().length / 2,
    }))
    expect(words.map(w => w.text)).toContain('Sift')
    expect(words.map(w => w.text)).not.toContain('Pour')
    words.slice(1).forEach((w, i) => expect(w.middle - w.half).toBeGreaterThan(words[i]!.middle + words[i]!.half))
  })

  it('shows where it is once it is wet, and what is too late to pour', async () => {
    const made = await drawn({ now: 60 })
    expect(made.get('.needle path').attributes('d')).toMatch(/^M\d/)
    expect(made.find('.trouble').exists()).toBe(true)
    expect(made.get('[role=img]').attributes('aria-label')).toMatch(/It is 1 min now\.$/)
  })

  it('writes below what else is due, and not what is past', async () => {
    const marks = [{ at: 30, words: 'gone by' }, { at: 300, words: 'stop tapping' }]
    const made = await drawn({ now: 60, marks })
    expect(made.findAll('text.due').map(t => t.text())).toEqual(['stop tapping'])
  })
})
