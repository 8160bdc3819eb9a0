import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { USUAL_WEATHER, type PlaceId } from '../drying/places'
import { emptyWords, problemWords } from './words'
import { OFFERED_CLASSES } from '../gypsum/powders'
import { safeHeight, vesselHeight, vesselVolume } from '../mould/gauge/vessel'
import { taughtBag } from '../forecast/observations'
import { splitIntoBatches } from './batches/batches'
import { centreMoments, forecast } from '../setting/moments'
import { momentsInput } from './moments-input'
import { ratioRestored } from './mending'
import { workOutPlan } from './plan'
import { freezeRun } from './run'
import type { MouldFacts, Plan, PlanWorld } from './types'
import { batchSteps, NINE_STAGES, schoolStages, signsAt } from './stages'

const lantern: MouldFacts = {
  id: 'lantern',
  name: 'Lantern base',
  material: 'silicone',
  volume: { value: 412e-6, low: 400e-6, high: 424e-6 },
  mouth: { shape: 'round', width: 0.09, length: 0.09 },
  wall: 0.008,
  section: 0.03,
  fragile: false,
}
const tile: MouldFacts = {
  ...lantern,
  id: 'tile',
  name: 'Garden tile',
  volume: { value: 190e-6, low: 185e-6, high: 195e-6 },
  mouth: { shape: 'rectangular', width: 0.1, length: 0.1 },
  section: 0.018,
}
const pail = { id: 'pail', name: '10 l pail', vessel: { bottom: 0.2, top: 0.26, height: 0.26 } }
const cup = { id: 'cup', name: 'Half-litre cup', vessel: { bottom: 0.07, top: 0.09, height: 0.1 } }
const world: PlanWorld = { moulds: [lantern, tile], bucket: pail }
const plan: Plan = {
  name: 'Six lantern bases',
  endUse: 'painted',
  fills: [{ mould: 'lantern', count: 6 }],
  classId: 'gypsum-cement',
  school: 'weighed',
  ratio: 0.42,
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
const sentences = (p: Partial<Plan>, w: Partial<PlanWorld> = {}) =>
  workOutPlan({ ...plan, ...p }, { ...world, ...w }).problems.map(x =>
    `${x.severity} ${x.field}: ${problemWords(x)}`,
  ).join('\n')

describe('where it sets and dries', () => {
  const outcome = (p: Partial<Plan>) => workOutPlan({ ...plan, ...p }, world)
  const codes = (p: Partial<Plan>) => outcome(p).problems.map(x => x.code)
  const outside = (place: PlaceId, celsius: number, humidity: number): Partial<Plan> =>
    ({ dries: { place, air: { celsius, humidity }, weather: USUAL_WEATHER } })
  it('a place that dries nothing is said, with what a room would do, and the run has no date', () => {
    expect(sentences(outside('wet-ground', 15, 0.7))).toMatch(/warn dries: Not here\. It lies on damp ground.*\d+ days in a room/)
    const run = (p: Partial<Plan>) => {
      const made = freezeRun({ ...plan, ...p }, world)
      return made.ok ? made.run : undefined
    }
    expect(run(outside('wet-ground', 15, 0.7))!.drying).toEqual({})
    const sunny = { ...outside('stood', 14, 0.7).dries!, weather: { ...USUAL_WEATHER, sky: 'sun' as const } }
    const inSky = (day: number) => {
      const made = freezeRun({ ...plan, dries: sunny }, { ...world, day })
      return made.ok ? made.run.drying.lantern?.value ?? Infinity : NaN
    }
    expect(inSky(172)).toBeLessThan(inSky(355))
    const [room, roof] = [run({}), run(outside('roof', 12, 0.75))].map(r => r!.drying.lantern!.value)
    expect(roof).toBeGreaterThan(room!)
    expect(codes(outside('roof', 12, 0.75))).not.toContain('not-dry-here')
  })
  it('sun on its face warms a setting cast, damp air keeps it warmer than dry', () => {
    const warmest = (sets: Plan['sets']) => outcome({ sets }).setting!.centre.warmestTemperature
    const roof = warmest({ place: 'roof', humidity: 0.5 })
    expect(warmest({ place: 'sky', humidity: 0.5, sky: 'sun' })).toBeGreaterThan(roof + 1)
    expect(warmest({ place: 'sky', humidity: 0.5, sky: 'cloud' })).toBeLessThan(warmest({ place: 'sky', humidity: 0.5, sky: 'sun' }))
    expect(warmest({ place: 'room', humidity: 0.95 })).toBeGreaterThan(warmest({ place: 'room', humidity: 0.1 }))
    expect(warmest({ place: 'room', humidity: 0.5 })).toBeCloseTo(warmest(undefined), 9)
  })
  it('frost before it is hard and rain on a fresh face are warned of', () => {
    expect(codes({ roomTemperature: -2, sets: { place: 'roof', humidity: 0.8 } })).toContain('frost-before-set')
    expect(codes({ sets: { place: 'sky', humidity: 0.9, sky: 'rain' } })).toContain('set-in-rain')
    expect(codes({ sets: { place: 'roof', humidity: 0.9 } })).not.toContain('set-in-rain')
  })
})

describe('false alarms', () => {
  const codes = (p: Partial<Plan>) => workOutPlan({ ...plan, ...p }, world).problems.map(x => x.code)
  it('no powder is refused, or called thick or thin, anywhere in its own range', () => {
    for (const { id, ratio } of OFFERED_CLASSES)
      for (const w of [ratio.low, ratio.recommended, ratio.high])
        expect(codes({ classId: id, ratio: w }).filter(c => ['jams', 'cannot-set', 'thick', 'thin'].includes(c)), `${id} ${w}`)
          .toEqual([])
  })
  it('a mix with filler is held against what flows with it: sand and silica flour want more water', () => {
    const of = (id: 'sand' | 'silica-flour', share: number, ratio: number) =>
      codes({ classId: 'plaster-of-paris', ratio, additions: [{ id, share }] })
    expect(of('sand', 1, 0.95)).not.toContain('thin')
    expect(of('silica-flour', 1, 1.2)).not.toContain('thin')
    expect(of('silica-flour', 1, 1.3)).toContain('thin')
    expect(of('silica-flour', 1, 0.7)).toContain('thick')
  })
  it('at its own ratio no mix stands under clear water', () => {
    for (const { id, ratio } of OFFERED_CLASSES)
      expect(workOutPlan({ ...plan, classId: id, ratio: ratio.recommended }, world).setting!.centre.bleed, id).toBe(0)
  })
})

describe('working out a plan', () => {
  it('six lantern bases take what hand arithmetic says', () => {
    const r = workOutPlan(plan, world)
    // 6 x 412 ml and 6 % spare, slurry density of this cement at 42 by its grain volumes, 2 % air
    expect(r.total.slurry).toBeCloseTo(6 * 412e-6 * 1.06, 9)
    const grains = 0.93 / 2757 + 0.07 / 2700, perKg = (grains + 0.42 / 998.6) / 0.98
    expect(r.total.powder).toBeCloseTo(r.total.slurry / perKg, 3)
    expect(r.total.water / r.total.powder).toBeCloseTo(0.42, 9)
    expect(r.problems.filter(p => p.severity === 'refuse')).toEqual([])
  })

  it('the level of each batch follows from the bucket, final level below the safe one', () => {
    for (const batch of workOutPlan(plan, world).batches) {
      expect(vesselVolume(pail.vessel, batch.levels!.final)).toBeCloseTo(batch.mix.slurry, 9)
      expect(batch.levels!.water).toBeLessThan(batch.levels!.final)
      expect(batch.levels!.final).toBeLessThanOrEqual(batch.levels!.safe)
    }
  })

  it('counts scoops as coarsely as leaves little over, keeps the scoop ratio, and says when the scoop is too large', () => {
    const pop = { ...plan, classId: 'plaster-of-paris', school: 'scoops' } as const, r = workOutPlan(pop, world)
    for (const { scoops } of r.batches) expect([scoops!.water * 8 % 1, scoops!.powder / scoops!.water]).toEqual([0, 2])
    expect(r.ratio.high / r.ratio.low).toBeGreaterThan(1.2)
    // A mould of 200 ml with a scoop of 250: what the half-scoop got 85 % too much of.
    for (let ml = 60; ml <= 4000; ml += 20) {
      const mould = { ...tile, volume: { value: ml * 1e-6, low: ml * 1e-6, high: ml * 1e-6 } }
      const one = workOutPlan({ ...pop, fills: [{ mould: 'tile', count: 1 }] }, { moulds: [mould], bucket: pail })
      const { mix, scoops } = one.batches[0]!, needs = ml * 1.06e-6
      expect(mix.slurry / needs).toBeGreaterThan(0.975)
      if (ml >= 200) expect(mix.slurry / needs, `${ml} ml`).toBeLessThan(1.2)
      expect(mix.waterVolume).toBeCloseTo(scoops!.water * 2.5e-4, 9)
      const over = mix.slurry / needs - 1
      expect(one.problems.some(p => p.code === 'coarse-scoop'), `${ml} ml, ${over}`).toBe(over > 0.12)
    }
  })

  it('fills the moulds that use most of the powder left, not the first of the list', () => {
    const fills = [{ mould: 'lantern', count: 2 }, { mould: 'tile', count: 5 }]
    const r = workOutPlan({ ...plan, fills, known: { what: 'powder', amount: 0.95 } }, world)
    // 0.95 kg at 42 makes 705 ml less losses: a lantern and a tile are 602, three tiles 570; the list would fill one.
    const filled = r.batches.flatMap(b => b.fills).map(f => `${f.copies} ${f.mould.id}`)
    expect(filled).toEqual(['1 lantern', '1 tile'])
    expect(emptyWords(r)).toBe('5 of the moulds stay empty: 1 Lantern base and 4 Garden tile.')
    const lanterns = workOutPlan({ ...plan, known: { what: 'powder', amount: 0.95 } }, world)
    expect(emptyWords(lanterns)).toBe('5 of the moulds stay empty.')
  })

  it('says what a mix off the pack costs, and nothing where it is mixed as the pack says', () => {
    const bag = { id: 'b', name: 'Kit', classId: 'gypsum-cement', uncertain: false, printed: { ratio: 0.42 } } as const
    expect(sentences({}, { bag })).not.toContain('The bag says')
    expect(sentences({ ratio: 0.47 }, { bag })).toMatch(
      /The bag says 42\. At 47 it is 1\d % weaker when dry and [\d.]+ % later to set, with .* more to pour\./,
    )
    expect(sentences({ ratio: 0.39 }, { bag })).toMatch(/At 39 it is [\d.]+ % stronger when dry and [\d.]+ % sooner to set/)
  })

  it('a powder that only its pack knows has wider ranges than any class, until its pack and its pours narrow them', () => {
    const width = (p: Partial<Plan>, bag?: PlanWorld['bag']) => {
      const { setting } = workOutPlan({ ...plan, ...p }, { ...world, bag })
      const { glossGone } = forecast(setting!.input).moments
      return Math.log(glossGone.high / glossGone.low)
    }
    const other = { classId: 'other', ratio: 0.45 } as const
    for (const { id, ratio } of OFFERED_CLASSES.filter(c => c.id !== 'other'))
      expect(width(other), id).toBeGreaterThan(1.15 * width({ classId: id, ratio: ratio.recommended }))
    const bag = { id: 'b', name: 'Kit', classId: 'other', uncertain: false } as const
    const printed = taughtBag({ ...bag, printed: { ratio: 0.45, sets: 1500 } }, [])
    expect(width(other, printed)).toBeLessThan(0.8 * width(other, bag))
    expect(sentences(other, { bag })).toContain('Only the pack tells about this powder')
    expect(sentences(other, { bag: printed })).not.toContain('Only the pack tells')
  })

  it('more powder than the bucket holds goes into further batches, and what none has room for is said', () => {
    const known = (amount: number, what: 'powder' | 'water' = 'powder', count = 6) =>
      workOutPlan({ ...plan, fills: [{ mould: 'lantern', count }], known: { what, amount } }, world)
    const most = vesselVolume(pail.vessel, safeHeight(pail.vessel))
    for (const amount of [4, 8, 12, 20, 40]) {
      const r = known(amount), left = r.problems.find(p => p.code === 'not-mixed')
      const stays = left?.code === 'not-mixed' ? left.mass : 0
      expect(r.total.powder + stays, `${amount} kg`).toBeCloseTo(amount, 1)
      for (const b of r.batches) expect(b.mix.slurry).toBeLessThanOrEqual(most * (1 + 1e-9))
    }
    expect(known(20).batches.length).toBeGreaterThan(known(4).batches.length)
    const wet = known(30, 'water', 1)
    expect(wet.problems.map(p => problemWords(p)).join()).toMatch(/of the water stays out: the bucket takes no more/)
  })

  it('powder left fills whole moulds only and says what is spare', () => {
    const r = workOutPlan({ ...plan, known: { what: 'powder', amount: 2 } }, world)
    const filled = r.batches.reduce((n, b) => n + b.fills.reduce((m, f) => m + f.copies, 0), 0)
    expect(filled + r.unfilled).toBe(6)
    expect(r.total.powder).toBeCloseTo(2, 6)
    expect(r.spare).toBeLessThan(412e-6)
  })

  it('water already in the bucket fixes the powder', () => {
    const r = workOutPlan({ ...plan, known: { what: 'water', amount: 0.8 } }, world)
    expect(r.total.powder).toBeCloseTo(0.8 / 0.42, 6)
  })

  it.each<[string, Partial<Plan>, Partial<PlanWorld>, string]>([
    ['no mould', { fills: [] }, {}, 'refuse fills: Choose at least one mould'],
    ['no bucket', {}, { bucket: undefined }, 'refuse bucket: Choose the bucket'],
    [
      'a bucket too small for one mould',
      { fills: [{ mould: 'lantern', count: 1 }] },
      { bucket: cup },
      'refuse bucket: “Lantern base” takes',
    ],
    ['less water than the powder binds', { ratio: 0.15 }, {}, 'refuse ratio: Gypsum cement binds 17.3 parts'],
    ['a mix that jams', { ratio: 0.30 }, {}, 'refuse ratio: At 30 this powder jams'],
    ['negative water', { ratio: -1 }, {}, 'refuse ratio'],
    ['boiling water', { waterTemperature: 95 }, {}, 'refuse waterTemperature'],
    ['too many', { fills: [{ mould: 'lantern', count: 4000 }] }, {}, 'refuse fills: A plan holds up to 400'],
    [
      'dental stone sifted to islands',
      { classId: 'dental-type-4', ratio: 0.24, school: 'saturation' },
      {},
      'refuse school: A dental product is weighed',
    ],
    ['too little powder for any', { known: { what: 'powder', amount: 0.1 } }, {}, 'refuse known: That makes'],
    ['an unmeasured known', { known: { what: 'water', amount: 0 } }, {}, 'refuse known: Say how much water'],
    ['a big piece in a bag', { school: 'bag', fills: [{ mould: 'big', count: 1 }] }, {
      moulds: [{ ...lantern, id: 'big', volume: { value: 5e-3, low: 5e-3, high: 5e-3 } }],
    }, 'refuse school'],
    [
      'a second coat after the gloss',
      { secondCoatAfter: 3 * 3600 },
      {},
      'warn secondCoatAfter: Too late to bond by itself',
    ],
    ['opening at once', { openAfter: 600 }, {}, 'warn openAfter: Too early for this mould'],
    [
      'a dose that harms',
      { additions: [{ id: 'citrate', share: 0.01 }] },
      {},
      'warn additions: Citric acid or citrate above 0.3 %: it may never',
    ],
    [
      'hardly stirred',
      { stir: { tool: 'hand', minutes: 0.1 } },
      {},
      'warn stir: Outside what the model was checked for',
    ],
    [
      'a wafer',
      { fills: [{ mould: 'wafer', count: 1 }] },
      { moulds: [{ ...lantern, id: 'wafer', section: 0.002 }] },
      'warn fills: Outside what the model was checked for',
    ],
    ['stirring for ever', { stir: { tool: 'drill', minutes: 20 } }, {}, 'warn stir'],
    ['a hot thick piece', { fills: [{ mould: 'thick', count: 1 }] }, {
      moulds: [{ ...lantern, id: 'thick', section: 0.12 }],
    }, 'warn fills: The core will pass 60 °C'],
  ])('%s is explained at its field', (_, p, w, words) => {
    expect(sentences(p, w)).toContain(words)
  })

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.double(),
        fc.double(),
        fc.double(),
        fc.double(),
        fc.constantFrom('weighed', 'saturation', 'scoops', 'bag', 'dumped'),
        fc.constantFrom('moulds', 'powder', 'water'),
        (ratio, temperature, losses, amount, school, what) => {
          workOutPlan({
            ...plan,
            ratio,
            waterTemperature: temperature,
            losses: Math.abs(losses) || 0,
            school: school as Plan['school'],
            known: { what: what as 'moulds', amount },
          }, world)
        },
      ),
      { examples: [[0.7, 20, 0, Infinity, 'saturation', 'powder']] },
    )
  })
})

describe('batches', () => {
  it('holds every cast once, in order, within capacity, in the fewest greedy batches', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.01, max: 1, noNaN: true }), { minLength: 1, maxLength: 60 }),
        (volumes) => {
          const { groups } = splitIntoBatches(volumes, 1.5, () => true)
          expect(groups.reduce((a, b) => a + b)).toBe(volumes.length)
          let at = 0
          for (const size of groups) {
            expect(volumes.slice(at, at + size).reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(1.5 + 1e-9)
            at += size
          }
        },
      ),
    )
  })

  it('is even: six equal casts where four would fit go three and three', () => {
    expect(splitIntoBatches([1, 1, 1, 1, 1, 1], 4, () => true).groups).toEqual([3, 3])
  })

  it('the pouring window limits a batch too, and says when nothing fits it', () => {
    expect(splitIntoBatches([1, 1, 1, 1], 10, (_, count) => count <= 2).groups).toEqual([2, 2])
    expect(splitIntoBatches([1, 1], 10, () => false)).toEqual({ groups: [2], tooSlow: true })
  })
})

describe('vessel', () => {
  it('height and volume undo each other, straight, tapered and narrowing', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        fc.double({ min: 0.05, max: 0.95, noNaN: true }),
        (bottom, top, share) => {
          const v = { bottom, top, height: 0.3 }
          expect(vesselHeight(v, vesselVolume(v, share * 0.3))).toBeCloseTo(share * 0.3, 8)
        },
      ),
    )
  })

  it('a cup of 100 mm straight holds a hand-worked 785 ml to 100 mm', () => {
    expect(vesselVolume({ bottom: 0.1, top: 0.1, height: 0.2 }, 0.1) * 1e6).toBeCloseTo(785.4, 1)
    expect(safeHeight({ bottom: 0.1, top: 0.1, height: 0.2 })).toBeCloseTo(0.175, 9)
  })
})

describe('moments', () => {
  const ratio = workOutPlan(plan, world).ratio
  const input = momentsInput(plan, ratio, lantern, 240)

  it('each range holds its centre; opening is at the cautious end', () => {
    const { moments: m, outcome } = forecast(input)
    for (
      const e of [
        m.pourBy,
        m.webbing,
        m.tapUntil!,
        m.glossGone,
        m.finalSet,
        m.warmest,
        m.warmestTemperature,
        m.coolAgain,
        m.openEarliest,
        ...Object.values(outcome),
      ]
    ) {
      expect(e.low <= e.value && e.value <= e.high).toBe(true)
      expect(e.basis.note.length).toBeGreaterThan(10)
    }
    expect(m.open.from).toBeGreaterThan(m.openEarliest.high)
    expect(m.open.to).toBeGreaterThanOrEqual(m.open.from + 1200)
    expect(centreMoments(input).glossGone).toBe(m.glossGone.value)
  })

  it('a bag of unknown age has wider ranges; an end use can hold opening back', () => {
    const sure = forecast({ ...input, bagUncertain: false }).moments,
      unsure = forecast({ ...input, bagUncertain: true }).moments
    expect(unsure.glossGone.high - unsure.glossGone.low).toBeGreaterThan(sure.glossGone.high - sure.glossGone.low)
    expect(forecast({ ...input, openNotBefore: 9 * 3600 }).moments.open).toMatchObject({
      from: 9 * 3600,
      basis: { kind: 'common practice' },
    })
  })
})

describe('stages', () => {
  it('a bag has no sifting and no soak; every school ends by cleaning up and setting', () => {
    expect(schoolStages('bag')).toEqual(['gauge', 'ready', 'weigh', 'stir', 'fill', 'set', 'dry'])
    expect(schoolStages('weighed')).toEqual(NINE_STAGES)
    expect(schoolStages('powder-first')).toEqual(NINE_STAGES.filter(s => s !== 'soak'))
    for (const school of ['weighed', 'saturation', 'scoops', 'bag', 'dumped', 'powder-first'] as const) {
      const steps = batchSteps(school, true)
      expect(steps[0]!.stage).toBe('ready')
      expect(steps.slice(-3).map(s => s.stage)).toEqual(['fill', 'clean-up', 'set'])
      expect(steps.filter(s => s.starts === 'wet')).toHaveLength(1)
      expect(batchSteps(school, false).map(s => s.stage)).not.toContain('ready')
    }
  })

  it('offers each sign only while it can be seen', () => {
    expect(signsAt('sift').map(s => s.id)).toEqual(['islands', 'crust'])
    expect(signsAt('set').map(s => s.id)).toContain('cold-again')
    expect(signsAt('ready')).toEqual([])
  })

  it('gives back the water for powder overshot by 40 g', () => {
    expect(ratioRestored(0.45, 1.04, 2.351).add).toBe('water')
    expect(ratioRestored(0.45, 1.04, 2.351).mass).toBeCloseTo(0.018, 3)
    expect(ratioRestored(0.45, 1.04, 2.2).add).toBe('powder')
    expect(ratioRestored(0.45, 0.45, 1)).toEqual({ add: 'nothing', mass: 0 })
  })
})
