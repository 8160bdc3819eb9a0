import { describe, expect, it } from 'vitest'
import { OFFERED_CLASSES, powderClass } from '../gypsum/powders'
import { DOINGS, type DoingId } from '../gypsum/saying/doing'
import { readSaying } from '../gypsum/saying/read-saying'
import { DOING_WORDS } from '../gypsum/words'
import { judgeDoing } from './doing'
import { doingWords } from './doing-words'
import { labInput, usualMix, type LabMix } from './mix'

const plaster = usualMix('plaster-of-paris')
const judge = (id: DoingId, mix: LabMix) => judgeDoing(id, { input: labInput(mix) })

describe('sayings about doing', () => {
  it.each<[string, DoingId]>([
    ['plaster starts only when it is stirred', 'starts-when-stirred'],
    ['the clock starts at mixing', 'starts-when-stirred'],
    ['overmixed never sets', 'over-mixed'],
    ['stirred too long', 'over-mixed'],
    ['never tap while sifting', 'tap-while-sifting'],
    ['dump it all in', 'never-dump'],
    ['hot water', 'hot-water'],
    ['machine or hand', 'machine'],
    ['warm means done', 'warm-is-done'],
  ])('“%s” is read', (text, id) => {
    expect(readSaying(text, { powder: powderClass('plaster-of-paris') })).toEqual({ code: 'doing', id })
  })

  it('each on its button is read as itself, and judged for every powder in a sentence with its figures', () => {
    for (const id of DOINGS) {
      expect(readSaying(DOING_WORDS[id], { powder: powderClass('plaster-of-paris') })).toEqual({ code: 'doing', id })
      for (const { id: classId } of OFFERED_CLASSES) {
        const verdict = judge(id, usualMix(classId)), words = doingWords(verdict)
        expect(words, `${id} ${classId}`).toMatch(/^[A-Z].{40,}\.$/)
        expect(words, `${id} ${classId}`).not.toMatch(/NaN|Infinity|undefined/)
      }
    }
  })

  it('hydration starts when wet and stirring multiplies it: a later stir moves the gloss by a part of the wait', () => {
    const { truth, ...told } = judge('starts-when-stirred', plaster)
    expect(truth).toBe('partly')
    if (told.code !== 'starts-when-stirred') throw new Error('another')
    expect(told.later.low).toBeLessThan(told.later.value)
    expect(told.later.value).toBeLessThan(told.waited)
  })

  it('over-mixed plaster sets, and sooner; warm is done in a flexible mould and not in a stiff one', () => {
    const over = judge('over-mixed', plaster)
    expect(over.truth).toBe('not')
    expect(over.code === 'over-mixed' && over.sooner.low).toBeGreaterThan(60)
    // A flexible mould gives while it warms; a thin plate in a stiff one has to wait until after its warmest.
    expect(judge('warm-is-done', plaster).truth).toBe('true')
    const plate = judge('warm-is-done', { ...plaster, mould: 'metal', section: 0.004 })
    expect([plate.truth, plate.code === 'warm-is-done' && plate.after.value > 0]).toEqual(['partly', true])
    expect(judge('never-dump', usualMix('investment-plaster')).truth).toBe('not')
    expect(judge('hot-water', plaster).truth).toBe('partly')
  })

  it('a plan is judged by its own bag and amount: a known bag narrows the range, more powder saves more', () => {
    const input = labInput(plaster), known = { ...input, bagRate: { mean: 0, sd: 0.05 } }
    const width = (of: typeof input) => {
      const v = judgeDoing('hot-water', { input: of })
      return v.code === 'hot-water' ? v.sooner.high / v.sooner.low : NaN
    }
    expect(width(known)).toBeLessThan(width(input))
    const saved = (powder?: number) => {
      const v = judgeDoing('never-dump', { input, powder })
      return v.code === 'never-dump' ? v.saved : NaN
    }
    expect(saved(5)).toBeGreaterThan(saved())
    expect(doingWords(judgeDoing('never-dump', { input, powder: 5 }))).toMatch(/^Dumped, 5.000 g of powder/)
  })
})
