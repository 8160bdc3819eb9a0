import { describe, expect, it } from 'vitest'
import { BUCKET_SIZES, KINDS } from '../door/kinds'
import { vesselVolume } from '../mould/gauge/vessel'
import { workOutDoor, thingsOf, type DoorThings } from '../door/door'
import { forecast } from '../setting/moments'
import { CHAINS } from './chains'
import { dipVolumes } from './dip'
import { timesOfPlan, timesOfPour } from './pour-times'

describe('the dip test', () => {
  const pail = BUCKET_SIZES.ten
  it('below the lower mark is the impression, what rose is the plaster, each with what its marks leave open', () => {
    const found = dipVolumes(pail, { without: 0.1, within: 0.112 })
    if (typeof found === 'string') throw new Error(found)
    expect(found.impression.value).toBeCloseTo(vesselVolume(pail, 0.1), 12)
    expect(found.plaster.value).toBeCloseTo(vesselVolume(pail, 0.112) - vesselVolume(pail, 0.1), 12)
    // A straight tube: a mark read within 3 mm is 3 mm of its area; two of them add like 3 and 4 make 5.
    const tube = { bottom: 0.2, top: 0.2, height: 0.3 }, area = Math.PI * 0.01
    const straight = dipVolumes(tube, { without: 0.1, within: 0.12 })
    if (typeof straight === 'string') throw new Error(straight)
    expect(straight.impression.high - straight.impression.value).toBeCloseTo(0.003 * area, 9)
    expect(straight.plaster.high - straight.plaster.value).toBeCloseTo(0.003 * area * Math.SQRT2, 9)
  })
  it('marks that cannot be are said', () => {
    expect(dipVolumes(pail, { without: 0.1, within: 0.1 })).toBe('not-risen')
    expect(dipVolumes(pail, { without: 0.1, within: 0.3 })).toBe('over-rim')
    expect(dipVolumes(pail, { without: 0, within: 0.1 })).toBe('not-risen')
  })
})

describe('what a job knows of its pours', () => {
  const names = { plan: '', mould: '', bucket: () => '', bag: '' }
  const pours = CHAINS.flatMap(c => c.steps.flatMap(s => s.like ? [[`${c.id} ${s.id}`, s.like] as const] : []))
  it.each(pours)('%s: can be mixed, and its gloss goes before it is opened', (_, { kind, size, count, classId }) => {
    const amount = { by: 'measures' as const, measures: KINDS[kind].sizes[size] }
    const things = thingsOf({ kind, amount, count, classId, way: 'weighed' }, names) as DoorThings
    const { batches, setting, problems } = workOutDoor(things)
    expect(problems.filter(p => p.severity === 'refuse')).toEqual([])
    const { filled, signs } = timesOfPlan(batches, forecast(setting!.input, 20).moments)
    expect(filled.value).toBeGreaterThan(60)
    expect(signs.gloss!.value).toBeGreaterThan(filled.low)
    expect(signs.open!.low).toBeGreaterThan(signs.gloss!.low)
  })
  it('one that was begun tells its own marks; moulds may be opened from the early end on', () => {
    const mark = (id: 'fill' | 'set' | 'open', value: number, actual?: number) =>
      ({ id, word: id, tone: 'mix' as const, low: 0.9 * value, value, high: 1.1 * value, actual })
    const times = timesOfPour({ wetAt: 5, glyph: [mark('fill', 400, 390), mark('set', 1500), mark('open', 3000)] })
    expect(times).toMatchObject({ wetAt: 5, filled: { actual: 390 } })
    expect(times.signs).toMatchObject({ gloss: { value: 1500 }, open: { value: 2700 } })
    expect(times.signs.dry).toBeUndefined()
  })
})
