import { describe, expect, it } from 'vitest'
import { dryingAdvice, dryingDates, missingWeight, type DryingSummary } from './drying'
import { USUAL_WEATHER } from '../drying/places'
import { NOT_HERE_WORDS } from '../drying/words'
import { wordedIn } from '../units/sentences'
import { DRYING_ADVICE_WORDS } from './words'
import type { Happening, PourEvent } from './events'
import type { MouldFacts, Plan } from '../plan/types'
import { freezeRun } from '../plan/run'
import { needOf, summariseCasts } from './projection'
import { foldPour } from './fold'

const tile: MouldFacts = {
  id: 'tile',
  name: 'Tile',
  material: 'silicone',
  volume: { value: 640e-6, low: 630e-6, high: 650e-6 },
  mouth: { shape: 'rectangular', width: 0.2, length: 0.2 },
  wall: 0.01,
  section: 0.016,
  fragile: false,
}
const plan: Plan = {
  name: 'Tiles',
  endUse: 'painted',
  fills: [{ mould: 'tile', count: 2 }],
  classId: 'plaster-of-paris',
  school: 'weighed',
  ratio: 0.7,
  scoop: { volume: 2.5e-4, filling: 'loose', perWater: 2 },
  waterTemperature: 18,
  roomTemperature: 20,
  bucket: 'pail',
  losses: 0.06,
  soakMinutes: 2,
  stir: { tool: 'hand', minutes: 2 },
  additions: [],
  known: { what: 'moulds', amount: 0 },
}
const frozen = freezeRun(plan, {
  moulds: [tile],
  bucket: { id: 'pail', name: 'Pail', vessel: { bottom: 0.2, top: 0.25, height: 0.25 } },
})
if (!frozen.ok) throw new Error('refused')
const { run } = frozen
const T0 = 1_800_000_000_000, HOUR = 3_600_000, DAY = 24 * HOUR
let made = 0
const event = (hours: number, h: Happening): PourEvent => ({
  ...h,
  id: `e${++made}`,
  pour: 'p',
  batch: 0,
  version: 1,
  happenedAt: T0 + hours * HOUR,
  recordedAt: T0,
  device: 'd',
  deviceSeq: made,
  actor: 'a',
})
const open = [
  event(0, { kind: 'stage', data: { stage: 'sift' } }),
  event(2, { kind: 'opened', data: { cast: '1.1' } }),
  event(2, { kind: 'judged', data: { cast: '1.1', verdict: 'good', defects: [], note: '' } }),
]
const dates = (more: PourEvent[]) => {
  const state = foldPour(run, [...open, ...more])
  return dryingDates(run, state, state.casts[0]!)
}
const placed = (hours: number, place: 'rack' | 'fan' | 'damp' | 'wet-ground' | 'cabinet', celsius = 20, humidity = 0.5) =>
  event(hours, { kind: 'placed', data: { cast: '1.1', place, air: { celsius, humidity } } })

const frosty = (hours: number) =>
  event(hours, {
    kind: 'placed',
    data: {
      cast: '1.1', place: 'roof', air: { celsius: 3, humidity: 0.7 }, weather: { ...USUAL_WEATHER, swing: 6 },
    },
  })

describe('a cast on the shelf', () => {
  it('has its dates from what was mixed, in a usual room: some days for a tile', () => {
    const d = dates([])
    expect((d.readyFrom! - T0) / DAY).toBeGreaterThan(0.4)
    expect((d.readyTo! - T0) / DAY).toBeLessThan(5.5)
    expect(d.drying).toMatchObject({ weighed: 0, standing: { place: 'rack' } })
    expect(d.drying!.notHere).toBeUndefined()
    // What lists read carries the same.
    const state = foldPour(run, open)
    expect(summariseCasts(run, state)[0]).toMatchObject({ readyFrom: d.readyFrom, readyTo: d.readyTo })
    expect(summariseCasts(run, state)[1]!.drying).toBeUndefined()
  })

  it('a fan brings the date forward, on damp ground there is none and it says why, wrapping stops it', () => {
    const usual = dates([]).readyTo!
    expect(dates([placed(3, 'fan')]).readyTo!).toBeLessThan(usual)
    const state = foldPour(run, [...open, placed(3, 'wet-ground', 6, 0.95)])
    const [cast] = summariseCasts(run, state)
    expect([cast!.readyFrom, cast!.readyTo]).toEqual([undefined, undefined])
    expect(cast!.drying).toMatchObject({ notHere: { code: 'damp-ground' } })
    expect(needOf(cast!, T0 + 4 * HOUR)).toBe('drying')
    // A nearly full cast in the frost of a night is warned of; a dry one is not.
    expect(dates([frosty(3)]).drying).toMatchObject({ frost: true })
    expect(dates([placed(3, 'cabinet', 40, 0.1), frosty(90)]).drying!.frost).toBeUndefined()
    expect(dates([placed(3, 'damp')]).readyFrom! - T0).toBeGreaterThan(300 * DAY)
  })

  it('three weighings move the date and then hold it; taken back, they never were', () => {
    const width = (d: ReturnType<typeof dates>) => d.readyTo! - d.readyFrom!
    const slow = [[3, 1.04], [15, 0.98], [27, 0.925]].map(([hours, mass]) =>
      event(hours!, { kind: 'cast-weighed', data: { cast: '1.1', mass: mass! } }),
    )
    const [none, one, three] = [dates([]), dates(slow.slice(0, 1)), dates(slow)]
    expect(width(three)).toBeLessThan(0.5 * width(none))
    expect(three.readyFrom!).toBeGreaterThan(none.readyFrom!)
    expect(one.drying!.lastMass).toBe(1.04)
    expect(dates([...slow, ...slow.map(e => event(30, { kind: 'undo', data: { event: e.id } }))])).toEqual(none)
  })
})

describe('a hidden hollow', () => {
  const record = {
    body: { dryMass: 1, freeWater: 0.4, area: 0.05, half: 0.01 },
    stays: [{ place: 'rack' as const, air: { celsius: 20, humidity: 0.5 }, from: 0 }],
    felt: [],
  }
  it('shows in the first weight, and not where the weight is within what moulds scatter', () => {
    expect(missingWeight({ ...record, weighed: [] })).toBeUndefined()
    expect(missingWeight({ ...record, weighed: [{ at: 600, mass: 1.33 }] })).toBeUndefined()
    expect(missingWeight({ ...record, weighed: [{ at: 600, mass: 1.2 }] })).toBeCloseTo(0.143, 2)
  })
})

describe('the one thing worth doing', () => {
  const now = T0 + 10 * DAY
  const at = (change: Partial<DryingSummary>): DryingSummary => ({
    standing: { place: 'rack', air: { celsius: 20, humidity: 0.5 } },
    since: now - DAY,
    weighed: 0,
    ...change,
  })
  const in_ = (place: DryingSummary['standing']['place'], celsius = 20) => ({
    standing: { place, air: { celsius, humidity: 0.5 } },
  })
  it.each([
    [{}, false, undefined],
    [{ standing: { ...in_('sky').standing, weather: { ...USUAL_WEATHER, sky: 'sun' } } }, false, 'out of the sun'],
    [in_('sky'), false, undefined],
    [{ frost: true }, false, 'Frost'],
    [in_('cabinet', 47), false, 'Too warm'],
    [in_('mould'), false, 'Take it out'],
    [in_('board'), false, 'Turn it'],
    [in_('damp'), false, 'unwrap'],
    [{ ...in_('board'), since: now - HOUR }, false, undefined],
    [{ notHere: { code: 'dew', room: DAY } }, false, 'More dew'],
    [{ steady: { steady: true, dry: false, code: 'full-of-water' } }, false, 'Steady but not dry'],
    [{ since: now - 4 * DAY }, true, 'Wet it again'],
    [{ since: now - 4 * DAY, wettedAt: now - DAY }, true, undefined],
  ] as [Partial<DryingSummary>, boolean, string | undefined][])('%j kept damp %s: %s', (change, damp, words) => {
    const said = dryingAdvice(at(change), now, damp)
    if (words === undefined) expect(said).toBeUndefined()
    else expect(said === 'not-drying' ? NOT_HERE_WORDS.dew : wordedIn(DRYING_ADVICE_WORDS[said!])).toContain(words)
  })
})
