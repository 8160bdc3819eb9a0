import type { Celsius, WaterRatio } from '../../units/quantity'
import { regional, writingOf, type Writing } from '../../units/reading/read-quantity'
import { METRIC, type Region } from '../../units/units'
import type { ReadUnit } from '../../units/reading/unit-names'
import { waterDensity } from '../mix'
import type { PowderClass, Span } from '../powders'
import { SAID, SAYINGS, readingsOf, spread, type Reading, type SayingId } from '../sayings'
import { ratioOf, type SchoolId, type Scoop } from '../schools'
import { amountsOf, plainSaying, type Amount } from './amounts'
import { doingSaid, type DoingId } from './doing'

/**
 * Reads a rule of thumb as people type it: what is water and what is powder, and whether it was meant by volume or by
 * weight, are found from its words, its units and what makes sense for the powder. Where two readings do, both are
 * given; where none does for want of something, it is refused with what is missing.
 */

/** Why what was typed says no ratio. */
export type UnreadSaying
  = | 'nothing-typed' | 'not-two-amounts' | 'nothing' | 'water-without-unit' | 'powder-without-unit' | 'water-missing'
    | 'range' | 'too-many' | 'names-silica' | 'out-of-bounds'
export type Understood
  = | { readonly code: 'read', readonly readings: readonly Reading[], readonly other?: Reading }
    /** It says when to stop, and no ratio. */
    | { readonly code: 'school', readonly school: SchoolId }
    /** One of the product's own, which is about more than a ratio. */
    | { readonly code: 'saying', readonly id: SayingId }
    /** How to do it, and not how much of what. */
    | { readonly code: 'doing', readonly id: DoingId }
    | { readonly code: UnreadSaying }

export interface SayingFor {
  readonly powder: PowderClass
  readonly filling?: Scoop['filling']
  /** Its own bulk density, where someone has measured it, kg/m3. */
  readonly bulk?: Span
  readonly temperature?: Celsius
  readonly writing?: Writing
}
type About = Required<Omit<SayingFor, 'bulk'>> & Pick<SayingFor, 'bulk'>

/** Water to powder by weight that anything on a ratio's field may be. */
const LEAST: WaterRatio = 0.05, MOST: WaterRatio = 3
/** How far below and above its class an order of the two is believed, and a reading of which nobody said of what. */
const ORDER = { low: 0.8, high: 1.25 } as const, BASIS = { low: 0.75, high: 1.75 } as const
/** Readings nearer to each other than this are one. */
const SAME = 1.05

const WEIGHED = /\b(weights?|weighed|wt|mass|w\/w)\b/, MEASURED = /\b(volumes?|vol|eye|v\/v)\b/

const byWeight = (ratio: WaterRatio, region?: Region): Reading =>
  ({ code: 'by-weight', ratio: spread(ratio, 0.015, SAID), ...region && { region } })
function byVolume(powderPerWater: number, about: About): Reading {
  const scoop = { volume: 2.5e-4, filling: about.filling, perWater: powderPerWater }
  return { code: 'by-volume', ratio: ratioOf('scoops', about.powder, 0, about.temperature, scoop, about.bulk) }
}
const within = ({ ratio: { value } }: Reading, { powder: { ratio } }: About, by: { low: number, high: number }) =>
  value >= by.low * ratio.low && value <= by.high * ratio.high

/** Which sizes of a unit's name may be meant: weight first, then those of the workshop. */
function sizesOf(units: readonly ReadUnit[], { writing }: About): readonly ReadUnit[] {
  return [
    ...units.filter(u => u.kind === 'mass'),
    ...regional(units.filter(u => u.kind === 'volume'), writing),
  ]
}

/** What two amounts say when their places are decided; several where a unit has several sizes. */
function readingsIn(dry: Amount, water: Amount, about: About): readonly Reading[] {
  const rho = waterDensity(about.temperature)
  const sameUnit = dry.units.length > 0 && dry.units[0]!.id === water.units[0]?.id
  // The same measure on both sides cancels; pounds, ounces and grams are weights.
  if (sameUnit && dry.units[0]!.kind === 'volume') return [byVolume(dry.count / water.count, about)]
  if (sameUnit) return [byWeight(water.count / dry.count)]
  // Nobody has an ounce of powder in a measuring jug.
  const weights = dry.units.filter(u => u.kind === 'mass'), sizes = sizesOf(water.units, about)
  return sizesOf(weights.length > 0 ? weights : dry.units, about).flatMap(d => sizes.flatMap((w) => {
    if (d.kind === 'volume' && w.kind === 'mass') return []
    const kilograms = w.kind === 'mass' ? w.toSi(water.count) : w.toSi(water.count) * rho
    return d.kind === 'mass'
      ? [byWeight(kilograms / d.toSi(dry.count), w.region)]
      : [byVolume(d.toSi(dry.count) * rho / kilograms, about)]
  }))
}

/** Two amounts without units: of what they are must be said, or both are tried. */
function bare(dry: Amount, water: Amount, said: string, about: About): readonly Reading[] {
  const volume = byVolume(dry.count / water.count, about), weight = byWeight(water.count / dry.count)
  if (WEIGHED.test(said)) return [weight]
  if (MEASURED.test(said) || dry.scoops || water.scoops) return [volume]
  if (dry.count >= 10 && water.count >= 10) return [weight]
  return [volume, weight]
}
const isBare = (a: Amount) => a.units.length === 0

/** Which is water: its words, else a volume beside a weight; none where only plausibility can tell. */
function waterFirst([a, b]: readonly [Amount, Amount]): boolean | undefined {
  if (a.of === 'water' || b.of === 'powder') return true
  if (a.of === 'powder' || b.of === 'water') return false
  const kinds = [a, b].map(x => new Set(x.units.map(u => u.kind)))
  const isVolume = (k: Set<string>) => k.has('volume') && !k.has('mass')
  if (isVolume(kinds[0]!) && kinds[1]!.has('mass')) return true
  return kinds[0]!.has('mass') && isVolume(kinds[1]!) ? false : undefined
}

/** How far the nearest of some readings is from what is usual for the class, in its logarithm. */
const farness = (readings: readonly Reading[], { powder }: About) =>
  Math.min(...readings.map(r => Math.abs(Math.log(r.ratio.value / powder.ratio.recommended))))

/** Leaves out what is too far from the powder's class, unless all is. */
function believable(readings: readonly Reading[], about: About): readonly Reading[] {
  const near = readings.filter(r => within(r, about, BASIS))
  const kept = near.length > 0 ? near : readings
  const same = (a: Reading, b: Reading) => Math.abs(Math.log(a.ratio.value / b.ratio.value)) < Math.log(SAME)
  return kept.filter((r, i) => !kept.slice(0, i).some(before => same(before, r)))
    .map(r => kept.some(other => other.code !== r.code && same(other, r)) ? { ...r, alike: true } : r)
}

function readTwo(pair: readonly [Amount, Amount], said: string, about: About): Understood {
  const [a, b] = pair, first = waterFirst(pair)
  if (!(a.count > 0 && b.count > 0)) return { code: 'nothing' }
  // “1½ cups to 1” is to one cup: what is measured by volume is measured alike.
  if (isBare(b) && !b.scoops && !isBare(a) && a.units.every(u => u.kind === 'volume'))
    return readTwo([a, { ...b, units: a.units }], said, about)
  if (isBare(a) !== isBare(b)) {
    const withUnit = isBare(a) ? b : a
    const isPowder = withUnit.of ? withUnit.of !== 'water' : withUnit === a
    return { code: isPowder ? 'water-without-unit' : 'powder-without-unit' }
  }
  const read = (water: boolean) => {
    const [dry, wet] = water ? [b, a] : [a, b]
    return isBare(a) ? bare(dry, wet, said, about) : readingsIn(dry, wet, about)
  }
  // Powder comes first, unless only the other way round makes sense.
  const [usual, turned] = [read(first ?? false), first === undefined ? read(true) : []]
  const isTurned = !usual.some(r => within(r, about, ORDER)) && farness(turned, about) < farness(usual, about) - 1e-9
  const all = isTurned ? turned : usual, told = believable(all, about)
  if (told.length === 0) return { code: 'water-without-unit' }
  const fluid = fluidOf(pair, about)
  return sane({ code: 'read', readings: told, ...fluid && { other: fluid } })
}

/** Both in ounces are weights; the water may have been fluid ounces. */
function fluidOf([a, b]: readonly [Amount, Amount], about: About): Reading | undefined {
  if (a.units[0]?.id !== 'oz' || b.units[0]?.id !== 'oz') return undefined
  const wet = a.of === 'water' || b.of === 'powder' ? a : b, dry = wet === a ? b : a
  const [size] = sizesOf(wet.units.filter(u => u.kind === 'volume'), about)
  return size && byWeight(
    size.toSi(wet.count) * waterDensity(about.temperature) / dry.units[0]!.toSi(dry.count), size.region,
  )
}

/** Without what nobody mixes. */
function sane(found: Understood & { readonly code: 'read' }): Understood {
  const readings = found.readings.filter(({ ratio: { value } }) => value >= LEAST && value <= MOST)
  return readings.length > 0 ? { ...found, readings } : { code: 'out-of-bounds' }
}

/** What may stand beside one number alone; anything else makes it something else. */
const BESIDE = /\b(water|plaster|powder|gypsum|ratio|consistency|of|to|the|a|at|use|mix|pour|is|parts?|percent|w|p)\b|[%/:=]/g

/** One number: a consistency, or under its least water to powder; `p/w` the other way round. */
function readOne({ count, units, scoops }: Amount, said: string, about: About): Understood {
  if (count <= 0) return { code: 'nothing' }
  if (units.length > 0 || scoops) return { code: 'water-missing' }
  // “2/3 water” is of the mould.
  if (/\d\/\d+ (?:of )?water\b/.test(said))
    return Math.abs(count - 2 / 3) < 0.01 ? { code: 'saying', id: 'two-thirds-water' } : { code: 'not-two-amounts' }
  if (said.replace(BESIDE, '').replace(/[\d.,]/g, '').trim() !== '') return { code: 'not-two-amounts' }
  if (/\b(p|powder|plaster) ?(\/|:|to) ?(w|water)\b/.test(said)) return sane(one(1 / count))
  if (/%|percent|consistency/.test(said)) return sane(one(count / 100))
  if (count >= 100 * LEAST && count <= 100 * MOST) return sane(one(count / 100))
  // Far beyond its class it is “2½ to 1” that was begun, and no water for one of powder.
  const meant = one(count), isRatio = count >= 0.15
    && count <= BASIS.high * about.powder.ratio.high && !/\bparts?\b/.test(said)
  return isRatio ? sane(meant) : { code: 'not-two-amounts' }
}
const one = (ratio: WaterRatio) => ({ code: 'read', readings: [byWeight(ratio)] } as const)

/** The product's own sayings that are about more than a ratio, as they stand on their buttons. */
const OWN = new Map(SAYINGS.filter(s => s.about === 'yield').flatMap(({ id, words, short }) =>
  [words, short].map(said => [plainSaying(said), id] as const)))
/** Where to stop sifting, in words. */
const ISLANDS = /\bislands?\b|\bdry (?:patch|lake)|\bstops? sinking\b|\btakes? no more\b/
/** Water let in until it runs, in words. */
const FEEL = /\bby (?:feel|eye)$|\b(?:until|till) it (?:runs|pours|flows)\b|\blike (?:[a-z]+ )?(?:cream|honey|yogh?urt|batter|milkshake|paint)\b/
/** Plaster, silica and water in equal parts: powder is both together. */
function readThree(amounts: readonly Amount[], said: string, about: About): Understood {
  if (amounts.length > 3 || !amounts.every(a => a.count === 1 && isBare(a))) return { code: 'too-many' }
  if (about.powder.family !== 'investment') return { code: 'names-silica' }
  const [weight, volume] = readingsOf('one-one-one', about.powder, about.filling, about.bulk, about.temperature)
  if (WEIGHED.test(said)) return { code: 'read', readings: [weight!] }
  if (MEASURED.test(said)) return { code: 'read', readings: [volume!] }
  return { code: 'read', readings: [volume!, weight!] }
}

/**
 * `2:1`, `three to one by volume`, `10 lb to a gallon`, `consistency 70`, `30 ml per 100 g`, `twice as much plaster as
 * water`.
 * @returns the readings that make sense, the likeliest first: two want to be asked about
 * @example readSaying('2½ to 1', { powder: powderClass('plaster-of-paris') }) // by volume, .576
 */
export function readSaying(text: string, told: SayingFor): Understood {
  const about = { filling: 'loose', temperature: 20, writing: writingOf(METRIC), ...told } as const
  const said = plainSaying(text)
  if (said === '') return { code: 'nothing-typed' }
  const own = OWN.get(said)
  if (own) return { code: 'saying', id: own }
  if (ISLANDS.test(said)) return { code: 'school', school: 'saturation' }
  if (FEEL.test(said) && !/\d/.test(said)) return { code: 'school', school: 'powder-first' }
  const { amounts, range, unread } = amountsOf(said, about.writing.decimal)
  if (range) return { code: 'range' }
  const doing = amounts.length === 0 ? doingSaid(said) : undefined
  if (doing) return { code: 'doing', id: doing }
  if (unread || amounts.length === 0) return { code: 'not-two-amounts' }
  if (amounts.length === 1) return readOne(amounts[0]!, said, about)
  if (amounts.length > 2) return readThree(amounts, said, about)
  return readTwo(amounts as [Amount, Amount], said, about)
}
