import type { Celsius, Metres, Seconds, WaterRatio } from '../units/quantity'
import {
  formatConsistency,
  formatDuration,
  formatFine,
  formatLength,
  formatPercent,
  formatTemperature,
} from '../units/format'
import { METRIC, type UnitPreferences } from '../units/units'
import { expectedDrying } from '../drying/expected'
import { additionKind, type Addition } from '../gypsum/additions'
import {
  CAST_SHAPES,
  MOULD_MATERIALS,
  SURROUNDINGS,
  type CastShape,
  type MouldMaterial,
  type Surroundings,
} from '../setting/body'
import { adiabaticRise, freshStiffness, settingProblem } from '../setting/hydration'
import { CHEMICAL_WATER, solveMix } from '../gypsum/mix'
import { PAINT_MOISTURE } from '../setting/outcome'
import { powderClass, powderInSentence, type PowderClassId } from '../gypsum/powders'
import { DRIVING, type Driving } from '../setting/flow'
import { ratioOf } from '../gypsum/schools'
import { STIR_TOOLS, turnsOf, type Stirring } from '../gypsum/stirring'
import type { centreMoments, Forecast, MomentsInput } from '../setting/moments'
import type { Plan, PlanResult } from '../plan/types'

/** A mix to try out without pouring it: everything that can be moved in the Lab. */
export interface LabMix {
  readonly classId: PowderClassId
  readonly ratio: WaterRatio
  readonly waterTemperature: Celsius
  readonly roomTemperature: Celsius
  /** Seconds from powder meeting water to the first stir: getting it in, and the soak. */
  readonly soak: Seconds
  readonly stir: Stirring
  readonly additions: readonly Addition[]
  /** Old set plaster in the bucket, share of the powder. */
  readonly dirt: number
  readonly section: Metres
  readonly mould: MouldMaterial
  readonly shape: CastShape
  readonly behind: Surroundings
  readonly driving: Driving
}

export type LabCentre = ReturnType<typeof centreMoments>

/** The recommended mix of a class in a usual small mould. */
export function usualMix(classId: PowderClassId): LabMix {
  return {
    classId,
    ratio: powderClass(classId).ratio.recommended,
    waterTemperature: 20,
    roomTemperature: 20,
    soak: 180,
    stir: { tool: 'hand', minutes: 2 },
    additions: [],
    dirt: 0,
    section: 0.025,
    mould: 'silicone',
    shape: 'open-slab',
    behind: 'bench',
    driving: 'tapped',
  }
}

/** The mix of a plan, with its thickest cast. */
export function mixOfPlan(plan: Plan, result: PlanResult): LabMix {
  const usual = usualMix(plan.classId), { setting } = result
  return {
    ...usual,
    ratio: result.ratio.value,
    waterTemperature: plan.waterTemperature,
    roomTemperature: plan.roomTemperature,
    stir: plan.stir,
    additions: plan.additions,
    soak: setting?.input.stirFrom ?? usual.soak,
    section: setting?.mould.section ?? usual.section,
    mould: setting?.mould.material ?? usual.mould,
    behind: setting?.mould.material === 'ground' ? 'ground' : 'air',
  }
}

/** What the setting model needs of it. The powder is taken as a bag that nobody has measured; both are weighed. */
export function labInput(mix: LabMix): MomentsInput {
  const powder = powderClass(mix.classId)
  return {
    powder,
    ratio: ratioOf('weighed', powder, mix.ratio, mix.waterTemperature),
    waterTemperature: mix.waterTemperature,
    roomTemperature: mix.roomTemperature,
    stir: mix.stir,
    stirFrom: mix.soak,
    additions: mix.additions,
    dirt: mix.dirt,
    section: mix.section,
    mould: mix.mould,
    shape: mix.shape,
    behind: mix.behind,
    driving: mix.driving,
    bagUncertain: false,
    openNotBefore: 0,
    fragile: false,
  }
}

export interface LabRemarks {
  /** Why it cannot be worked out. */ readonly refusal?: string
  readonly remarks: readonly string[]
}

/** What stands in the way of a lab mix, and where it leaves what the model was checked for. */
export function labRemarks(mix: LabMix): LabRemarks {
  const powder = powderClass(mix.classId)
  const input = labInput(mix)
  const range = `${formatConsistency(powder.ratio.low)} to ${formatConsistency(powder.ratio.high)}`
  const impossible = settingProblem({ ...input, ratio: mix.ratio })
  if (impossible) return { refusal: impossible, remarks: [] }
  if (mix.waterTemperature <= 0 || mix.waterTemperature >= 100)
    return { refusal: 'Plaster needs liquid water.', remarks: [] }
  if (mix.ratio <= powder.purity * CHEMICAL_WATER)
    return {
      refusal: `Too little water: this powder binds ${
        formatConsistency(powder.purity * CHEMICAL_WATER)
      } per 100, and some of it could never set. Use ${range}.`,
      remarks: [],
    }
  if (!freshStiffness(powder, mix.ratio, mix.additions).flows)
    return {
      refusal: `This jams and will not pour. Use ${range}${
        mix.additions.length ? ', or less of what drinks water' : ''
      }.`,
      remarks: [],
    }
  const remarks: string[] = []
  const outside = (what: string) => remarks.push(`Outside what the model was checked for: ${what}.`)
  const turns = turnsOf(mix.stir)
  if (mix.ratio < powder.ratio.low - 1e-9 || mix.ratio > powder.ratio.high + 1e-9)
    outside(`this powder is used at ${range}`)
  if (mix.waterTemperature < 3 || mix.waterTemperature > 60 || mix.roomTemperature < 3 || mix.roomTemperature > 40)
    outside('water from 3 to 60 °C and a room from 3 to 40 °C')
  if (turns < 20 || turns > 400) outside('stirring worth 20 to 400 turns of a spatula')
  if (mix.section < 0.004 || mix.section > 0.15) outside('casts from 4 to 150 mm thick')
  if (mix.dirt > 0.03) outside('up to 3 % of old plaster in the bucket')
  for (const { id, share } of mix.additions) {
    const kind = additionKind(id)
    if (share > kind.harmful + 1e-9)
      remarks.push(
        `${kind.name} above ${formatPercent(kind.harmful)}: ${kind.harm.charAt(0).toLowerCase()}${kind.harm.slice(1)}`,
      )
    else if (kind.sure !== 'physics')
      remarks.push(`${kind.name}: ${
        kind.sure === 'direction only'
          ? 'only the direction of its effect is known'
          : 'its effect is known to an order of magnitude'
      }; try a cup.`)
  }
  return { remarks }
}

/** Time from opening until dry enough for paint, on a rack in still room air: the first estimate. */
export function labDrying(mix: LabMix): ReturnType<typeof expectedDrying> {
  const amounts = solveMix({
    powder: powderClass(mix.classId),
    ratio: mix.ratio,
    waterTemperature: mix.waterTemperature,
    additions: mix.additions,
  }, { what: 'powder', amount: 1 })
  return expectedDrying(amounts, 1e-3, mix.section, PAINT_MOISTURE, mix.roomTemperature)
}

function list(parts: readonly string[]): string {
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`
}

/** What was moved between two mixes, lever by lever. */
export function leversMoved(from: LabMix, to: LabMix, prefs: UnitPreferences = METRIC): readonly string[] {
  const moved: string[] = []
  const temperature = (t: Celsius) => formatTemperature(t, prefs)
  if (from.classId !== to.classId) moved.push(powderInSentence(powderClass(to.classId)))
  if (formatConsistency(from.ratio) !== formatConsistency(to.ratio))
    moved.push(`${formatConsistency(to.ratio)} of water instead of ${formatConsistency(from.ratio)}`)
  if (temperature(from.waterTemperature) !== temperature(to.waterTemperature))
    moved.push(`water at ${temperature(to.waterTemperature)}`)
  if (temperature(from.roomTemperature) !== temperature(to.roomTemperature))
    moved.push(`a room at ${temperature(to.roomTemperature)}`)
  if (from.soak !== to.soak) moved.push(`${formatDuration(to.soak)} before stirring`)
  if (from.stir.tool !== to.stir.tool || from.stir.minutes !== to.stir.minutes)
    moved.push(`stirred ${formatDuration(to.stir.minutes * 60)} with ${STIR_TOOLS[to.stir.tool].name.toLowerCase()}`)
  for (const id of new Set([...from.additions, ...to.additions].map(a => a.id))) {
    const [before, after] = [from, to].map(m => m.additions.find(a => a.id === id)?.share ?? 0) as [number, number]
    if (before !== after)
      moved.push(
        after === 0
          ? `no ${additionKind(id).name.toLowerCase()}`
          : `${formatPercent(after)} ${additionKind(id).name.toLowerCase()}`,
      )
  }
  if (from.dirt !== to.dirt)
    moved.push(to.dirt === 0 ? 'a clean bucket' : `${formatPercent(to.dirt)} of old plaster in the bucket`)
  if (from.section !== to.section) moved.push(`${formatLength(to.section, prefs)} thick`)
  if (from.shape !== to.shape) moved.push(CAST_SHAPES[to.shape].name.toLowerCase())
  if (from.mould !== to.mould) moved.push(`${MOULD_MATERIALS[to.mould].name.toLowerCase()} mould`)
  if (from.behind !== to.behind) moved.push(SURROUNDINGS[to.behind].name.toLowerCase())
  if (from.driving !== to.driving) moved.push(DRIVING[to.driving].name.toLowerCase())
  return moved
}

interface Effect { readonly size: number, readonly words: string }

/**
 * What a change of mix does, in a sentence: the levers that were moved, then the effects that matter, the largest
 * first.
 * An effect smaller than a twentieth (or a degree) is not worth a word.
 */
export function whatChanged(
  from: LabMix,
  to: LabMix,
  before: LabCentre,
  after: LabCentre,
  prefs: UnitPreferences = METRIC,
): string {
  const moved = leversMoved(from, to, prefs)
  if (moved.length === 0) return 'Nothing is changed yet.'
  const effects: Effect[] = []
  const time = (key: 'pourBy' | 'glossGone' | 'open', less: string, more: string) => {
    const change = after[key] - before[key], size = Math.abs(Math.log(after[key] / before[key]))
    if (size >= 0.05 && Number.isFinite(size))
      effects.push({
        size,
        words: `${change < 0 ? less : more} ${formatDuration(Math.round(Math.abs(change) / 15) * 15 || 15)} ${
          change < 0 ? 'sooner' : 'later'
        }`,
      })
  }
  const share = (key: 'dryStrength' | 'expansion' | 'bubble', words: (up: boolean, amount: string) => string) => {
    const ratio = after[key] / before[key], size = Math.abs(Math.log(ratio))
    if (size >= 0.05 && Number.isFinite(size))
      effects.push({
        size,
        words: words(
          ratio > 1,
          ratio > 2 ? `${ratio.toFixed(1)} times` : formatPercent(Math.round(Math.abs(ratio - 1) * 100) / 100),
        ),
      })
  }
  time('pourBy', 'too stiff to pour', 'still pours')
  time('glossGone', 'sets', 'sets')
  time('open', 'opens', 'opens')
  const degrees = after.warmestTemperature - before.warmestTemperature
  if (Math.abs(degrees) >= 1)
    effects.push({
      size: Math.abs(degrees) / 20,
      words: `core ${Math.round(Math.abs(degrees) * (prefs.temperature === 'F' ? 1.8 : 1))} °${prefs.temperature} ${
        degrees > 0 ? 'hotter' : 'cooler'
      }`,
    })
  share('dryStrength', (up, amount) => `${amount} ${up ? 'stronger' : 'weaker'} when dry`)
  share('expansion', (up, amount) => `grows ${amount} ${up ? 'more' : 'less'}`)
  share(
    'bubble',
    up =>
      up
        ? `bubbles up to ${formatFine(after.bubble, prefs)} stay in`
        : `bubbles get out down to ${formatFine(after.bubble, prefs)}`,
  )
  if (after.bleed > before.bleed + 0.01)
    effects.push({
      size: after.bleed * 5,
      words: `clear water stands on it, ${formatPercent(Math.round(after.bleed * 100) / 100)} of the depth`,
    })
  const said = [...effects].sort((a, b) => b.size - a.size).slice(0, 5).map(e => e.words)
  const cause = list(moved)
  return `${cause.charAt(0).toUpperCase()}${cause.slice(1)}: ${
    said.length ? list(said) : 'no difference worth a word'
  }.`
}

/** Facts of one mix for the table, each with where it comes from. */
export interface LabFact {
  readonly id: string
  readonly name: string
  readonly unit: 'time' | 'temperature' | 'fine' | 'percent' | 'share' | 'strength' | 'density' | 'pas'
  readonly value: number
  readonly low?: number
  readonly high?: number
  readonly note: string
}

/** @param ranges come a moment after the centre values. */
export function labFacts(mix: LabMix, centre: LabCentre, ranges?: Forecast): readonly LabFact[] {
  const drying = labDrying(mix)
  const m = ranges?.moments, o = ranges?.outcome
  const fact = (
    id: string,
    name: string,
    unit: LabFact['unit'],
    value: number,
    e: { low: number, high: number } | undefined,
    note: string,
  ): LabFact => ({ id, name, unit, value, low: e?.low, high: e?.high, note })
  return [
    fact(
      'pour',
      'Too stiff to pour',
      'time',
      centre.pourBy,
      m?.pourBy,
      'Mean yield stress of 25 Pa, or two and a half times the fresh one.',
    ),
    fact(
      'tap',
      'Tapping stops helping',
      'time',
      centre.tapUntil,
      m?.tapUntil,
      'The shaking no longer overcomes the yield stress.',
    ),
    fact(
      'bubble',
      'Bubbles that get out, over',
      'fine',
      centre.bubble,
      o?.bubble,
      'From the full depth, tapped from the end of stirring; Stokes.',
    ),
    fact(
      'viscosity',
      'Thickness when fresh',
      'pas',
      centre.viscosity,
      o?.viscosity,
      'Plastic viscosity; water is 0.001, honey about 10 Pa s.',
    ),
    fact(
      'bleed',
      'Clear water on top',
      'share',
      centre.bleed,
      o?.bleed,
      'Share of the depth, from settling; low confidence.',
    ),
    fact(
      'gloss',
      'Gloss goes',
      'time',
      centre.glossGone,
      m?.glossGone,
      'Initial set: grains jam or needles span the mix.',
    ),
    fact('final', 'Final set', 'time', centre.finalSet, m?.finalSet, '1.7 MPa at the slowest place.'),
    fact('warmest', 'Warmest', 'time', centre.warmest, m?.warmest, 'At the hottest place.'),
    fact(
      'core',
      'Core then',
      'temperature',
      centre.warmestTemperature,
      m?.warmestTemperature,
      `Without any loss it would gain ${
        Math.round(adiabaticRise({ powder: powderClass(mix.classId), ratio: mix.ratio }, mix.roomTemperature))
      } K.`,
    ),
    fact(
      'skin',
      'Above 43 °C inside',
      'time',
      centre.above43,
      o?.above43,
      'Long enough to burn skin that is held to it.',
    ),
    fact(
      'open',
      'Opens at the earliest',
      'time',
      centre.open,
      m?.openEarliest,
      'Flexible: a third of its wet strength; rigid: seven tenths, and past its warmest.',
    ),
    fact('cool', 'Cool again', 'time', centre.coolAgain, m?.coolAgain, 'Within 2 K of the room.'),
    fact(
      'growth',
      'Grows on setting',
      'percent',
      centre.expansion,
      o?.expansion,
      'Linear, in air; under water about twice.',
    ),
    fact(
      'hour',
      'Strength after 1 h',
      'strength',
      centre.hourStrength,
      o?.hourStrength,
      'Compressive, at the slowest place.',
    ),
    fact('wet', 'Strength wet', 'strength', centre.wetStrength, o?.wetStrength, 'Compressive, fully set.'),
    fact(
      'damp',
      'Strength damp',
      'strength',
      centre.dampStrength,
      o?.dampStrength,
      'With 5 % of water still in it: nearly all of the gain is missing.',
    ),
    fact('dry', 'Strength dry', 'strength', centre.dryStrength, o?.dryStrength, 'Compressive, bone dry.'),
    fact('density', 'Weighs when dry', 'density', centre.dryDensity, o?.dryDensity, 'From masses and volumes.'),
    fact('pores', 'Pores', 'share', centre.porosity, o?.porosity, 'What a pottery mould drinks with.'),
    fact('paint', 'Dry enough to paint, after opening', 'time', drying.value, drying, drying.basis.note),
  ]
}

/** The mix as one line. */
export function mixLine(mix: LabMix, prefs: UnitPreferences = METRIC): string {
  return `${powderClass(mix.classId).name} at ${formatConsistency(mix.ratio)}, ${formatLength(mix.section, prefs)} in ${
    MOULD_MATERIALS[mix.mould].name.toLowerCase()
  }`
}
