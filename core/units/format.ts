import type { Celsius, CubicMetres, Kilograms, Metres, Seconds } from './quantity'
import { regionOf, UNITS, type Region, type UnitKind, type UnitPreferences } from './units'

const THIN = '\u2009'
const MINUS = '\u2212'

/** Digits with thin spaces between thousands; `step` is the smallest change the tool in hand can show. */
export function roundTo(x: number, step: number): string {
  const decimals = Math.max(0, Math.ceil(-Math.log10(step) - 1e-9))
  const [whole = '0', fraction] = (Math.round(Math.abs(x) / step) * step).toFixed(decimals).split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, THIN)
  const sign = x < 0 && Number(`${whole}.${fraction ?? 0}`) !== 0 ? MINUS : ''
  return sign + grouped + (fraction ? `.${fraction}` : '')
}

/** What a kitchen scale shows: 1 g to 5 kg, then 10 g; ounces to a tenth, pounds and ounces above one pound. */
export function formatMass(kg: Kilograms, prefs: UnitPreferences): string {
  if (prefs.mass === 'g') {
    const g = kg * 1000
    if (Math.abs(g) >= 20_000) return `${roundTo(kg, 0.1)} kg`
    return `${roundTo(g, Math.abs(g) < 10 ? 0.1 : Math.abs(g) < 5000 ? 1 : 10)} g`
  }
  const oz = UNITS.oz.fromSi(kg)
  const tenths = Math.round(oz * 10) / 10
  if (Math.abs(tenths) < 16) return `${roundTo(oz, 0.1)} oz`
  const lb = Math.trunc(tenths / 16)
  const rest = roundTo(Math.abs(tenths - lb * 16), 0.1).replace(/\.0$/, '')
  return rest === '0' ? `${roundTo(lb, 1)} lb` : `${roundTo(lb, 1)} lb ${rest} oz`
}

/**
 * What is left of a bag after some pours: to a twentieth or so, `7.5 kg`, `16.5 lb`; smaller rests to 10 g or an ounce.
 */
export function formatRoughMass(kg: Kilograms, prefs: UnitPreferences): string {
  if (prefs.mass === 'g') return kg < 1 ? `${roundTo(1000 * kg, 10)} g` : `${roundTo(kg, kg < 20 ? 0.1 : 1)} kg`
  const oz = UNITS.oz.fromSi(kg)
  return oz < 16 ? `${roundTo(oz, 1)} oz` : `${roundTo(oz / 16, oz < 640 ? 0.5 : 1)} lb`
}

/** Below so many millilitres a jug is read to so many. */
const JUG_STEPS = [[9.95, 0.1], [100, 1], [2000, 5]] as const

/** Whose cups: m3 in one, and in a fluid ounce; a metric cup has none, and four of it are a litre. */
const CUPS = {
  us: { cup: 231 * 0.0254 ** 3 / 16, ounce: 231 * 0.0254 ** 3 / 128 },
  imperial: { cup: 4.54609e-3 / 16, ounce: 4.54609e-3 / 160 },
  metric: { cup: 250e-6 },
} as const satisfies Record<Region, { readonly cup: CubicMetres, readonly ounce?: CubicMetres }>

/** An eighth that is further off than this is written finer. */
const CUP_OFF = 0.02
/**
 * What a jug shows: 0.1 ml below 10 ml (a syringe), 1 ml below 100 ml, 5 ml to 2 l, 10 ml above; cups to an eighth,
 * quarts above four cups, with cups and fluid ounces beside where an eighth would be over 2 % off.
 */
export function formatVolume(m3: CubicMetres, prefs: UnitPreferences): string {
  const { cup, ...small } = CUPS[regionOf(prefs) ?? 'us'], cups = m3 / cup
  const near = (step: number) => Math.abs(Math.round(cups / step) * step - cups) <= CUP_OFF * cups
  if (prefs.volume === 'ml' || !(m3 >= 0)) return formatMillilitres(m3)
  if (!('ounce' in small)) return cups < 0.25 || cups >= 4 || !near(1 / 8) ? formatMillilitres(m3) : inCups(cups)
  if (cups < 0.25) return `${roundTo(m3 / small.ounce, 0.1)} fl oz`
  if (cups >= 4) return near(1 / 2) ? `${eighths(cups / 4)} qt` : quartsAndCups(cups)
  if (near(1 / 8)) return inCups(cups)
  // In quarters, and what is over them in fluid ounces.
  const quarters = Math.floor(cups * 4 + 1e-9) / 4, over = roundTo((cups - quarters) * cup / small.ounce, 0.1)
    .replace(/\.0$/, '')
  return Number(over) === 0 ? inCups(quarters) : `${inCups(quarters)} ${over} fl oz`
}

/** In cups, whoever's they are, also where there are many: `5 ⅜ cups`. */
export const formatCups = (m3: CubicMetres, prefs: UnitPreferences): string =>
  inCups(m3 / CUPS[regionOf(prefs) ?? 'metric'].cup)
/** To the eighth: `½ cup`, `2 cups`. */
const inCups = (cups: number) => `${eighths(cups)} ${Math.round(cups * 8) > 8 ? 'cups' : 'cup'}`

function quartsAndCups(cups: number): string {
  const n = Math.round(cups * 8), rest = n % 32
  return rest === 0 ? `${n / 32} qt` : `${Math.floor(n / 32)} qt ${inCups(rest / 8)}`
}

function formatMillilitres(m3: CubicMetres): string {
  const ml = m3 * 1e6
  if (Math.abs(ml) >= 10_000) return `${roundTo(ml / 1000, 0.1)} l`
  return `${roundTo(ml, JUG_STEPS.find(([below]) => Math.abs(ml) < below)?.[1] ?? 10)} ml`
}

export function eighths(x: number): string {
  const n = Math.round(x * 8)
  const whole = Math.trunc(n / 8)
  const part = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'][n % 8]
  return whole === 0 && part ? part : `${whole}${part ? ` ${part}` : ''}`
}

/** Scoops to the eighth: `1 ½ level scoops`. */
export const formatScoops = (count: number, which: '' | 'level ' = '') =>
  `${eighths(count)} ${which}${count > 1 ? 'scoops' : 'scoop'}`

/** Inches as a rule is read: to a sixteenth below three, to an eighth below a foot, else to a quarter: `1 3/16 in`. */
function onARule(m: Metres): string {
  const inches = UNITS.inch.fromSi(m), parts = Math.abs(inches) < 3 ? 16 : Math.abs(inches) < 12 ? 8 : 4
  const n = Math.round(Math.abs(inches) * parts), sign = inches < 0 && n > 0 ? '−' : ''
  if (n % (parts / 8) === 0) return `${sign}${eighths(n / parts)} in`
  const whole = Math.floor(n / parts)
  return `${sign}${whole > 0 ? `${whole} ` : ''}${n % parts}/${parts} in`
}

/** Below the first mark of a rule a length is said in thousandths. */
const SMALLEST_MARK: Metres = 0.0254 / 16
/** Whole millimetres, or inches to the nearest mark of a rule. */
export function formatLength(m: Metres, prefs: UnitPreferences): string {
  if (prefs.length === 'mm') return `${roundTo(m * 1000, 1)} mm`
  return Math.abs(m) < SMALLEST_MARK ? formatFine(m, prefs) : onARule(m)
}

/** Square centimetres, tenths below ten; or square inches to a tenth. */
export function formatArea(m2: number, prefs: UnitPreferences): string {
  if (prefs.length === 'mm') return `${roundTo(m2 * 1e4, m2 < 1e-3 ? 0.1 : 1)} cm²`
  return `${roundTo(m2 / UNITS.inch.toSi(1) ** 2, 0.1)} in²`
}

/** Below this a length is said in thousandths of an inch. */
const THOUSANDTHS: Metres = 0.1 * 0.0254
/** Small lengths, like bubbles: hundredths of a millimetre below one, tenths above; of an inch, `8 thou`. */
export function formatFine(m: Metres, prefs: UnitPreferences): string {
  if (prefs.length === 'mm') return `${roundTo(m * 1000, m < 1e-3 ? 0.01 : 0.1)} mm`
  return Math.abs(m) < THOUSANDTHS ? `${roundTo(1000 * UNITS.inch.fromSi(m), 1)} thou` : onARule(m)
}
/** Both ends of a small length, with the unit once where they share it: `0.10–0.25 mm`. */
export function formatFineRange(low: Metres, high: Metres, prefs: UnitPreferences): string {
  const from = formatFine(low, prefs), to = formatFine(high, prefs), unit = / [a-z]+$/
  return unit.exec(from)?.[0] === unit.exec(to)?.[0] ? `${from.replace(unit, '')}–${to}` : `${from}–${to}`
}

export function formatTemperature(c: Celsius, prefs: UnitPreferences): string {
  return `${degrees(c, prefs)} °${prefs.temperature}`
}
const degrees = (c: Celsius, prefs: UnitPreferences) => roundTo(prefs.temperature === 'C' ? c : UNITS.F.fromSi(c), 1)

/** “18 to 22 °C”. */
export const formatTemperatures = (low: Celsius, high: Celsius, prefs: UnitPreferences): string =>
  `${degrees(low, prefs)} to ${formatTemperature(high, prefs)}`
/** How much warmer something gets, K: “34 °C”, “61 °F”. */
export const formatWarming = (kelvin: number, prefs: UnitPreferences): string =>
  `${roundTo(prefs.temperature === 'C' ? kelvin : 1.8 * kelvin, 1)} °${prefs.temperature}`

/** A length as a field keeps it: what was typed of a thin wall or an eighth of an inch is not rounded away. */
function typedLength(m: Metres, prefs: UnitPreferences): string {
  const metric = prefs.length === 'mm', size = metric ? m * 1000 : UNITS.inch.fromSi(m), small = Math.abs(size)
  const steps = metric ? [[1, 0.01], [100, 0.1]] as const : [[1, 0.001], [10, 0.01], [100, 0.1]] as const
  const step = steps.find(([below]) => small < below)?.[1] ?? 1
  const plain = roundTo(size, step)
  return `${plain.includes('.') ? plain.replace(/\.?0+$/, '') : plain} ${metric ? 'mm' : 'in'}`
}

/** Any quantity as a workshop shows it. @param value SI, temperatures in °C */
export function formatQuantity(kind: UnitKind, value: number, prefs: UnitPreferences): string {
  switch (kind) {
    case 'mass': return formatMass(value, prefs)
    case 'volume': return formatVolume(value, prefs)
    case 'length': return typedLength(value, prefs)
    case 'temperature': return formatTemperature(value, prefs)
    case 'time': return formatDuration(value)
  }
}

/** A place on the earth, degrees; north and east are above nothing (WGS 84, as cameras write it). */
export interface GeoPosition { readonly latitude: number, readonly longitude: number }

/**
 * `54.9784° N, 1.6130° W`: a ten-thousandth of a degree is 11 m of latitude, about what a camera knows of where it is.
 */
export function formatPosition({ latitude, longitude }: GeoPosition): string {
  return `${Math.abs(latitude).toFixed(4)}° ${latitude < 0 ? 'S' : 'N'}, ${Math.abs(longitude).toFixed(4)}° ${
    longitude < 0 ? 'W' : 'E'
  }`
}

/** A duration: `40 s`, `9 min 40 s`, `17 min`, `1 h 5`, `3 d 4 h`. Never looks like a time of day. */
export function formatDuration(seconds: Seconds, resolution: 'second' | 'minute' = 'second'): string {
  const total = Math.max(0, Math.round(seconds))
  if (total < 60 && resolution === 'second') return `${total} s`
  if (total < 3600) {
    const m = resolution === 'minute' ? Math.round(total / 60) : Math.floor(total / 60)
    const s = total - m * 60
    if (m === 60) return '1 h'
    return resolution === 'minute' || s === 0 ? `${m} min` : `${m} min ${s} s`
  }
  const minutes = Math.round(total / 60)
  if (minutes < 48 * 60) {
    const h = Math.floor(minutes / 60), m = minutes % 60
    return m === 0 ? `${h} h` : `${h} h ${m}`
  }
  const hours = Math.round(total / 3600)
  const d = Math.floor(hours / 24), h = hours % 24
  return h === 0 || d >= 7 ? `${d} d` : `${d} d ${h} h`
}

/** A range of durations whose ends share a unit where they can: `17–22 min`, `50 min – 1 h 25`. */
export function formatDurationRange(low: Seconds, high: Seconds): string {
  const a = Math.round(low / 60), b = Math.round(high / 60)
  if (high < 180) return `${Math.round(low / 5) * 5}–${Math.round(high / 5) * 5} s`
  if (b < 60) return a === b ? `${a} min` : `${a}–${b} min`
  // No false precision: five minutes beyond an hour, hours beyond six, half days beyond two days.
  const step = high < 6 * 3600 ? 300 : high < 48 * 3600 ? 3600 : 43_200
  const to = Math.round(high / step) * step, from = Math.round(low / step) * step || low
  if (step === 43_200) return `${halves(from)}–${halves(to)} d`
  if (step === 3600) return from === to ? `${from / 3600} h` : `${Math.round(from / 3600)}–${to / 3600} h`
  return from === to
    ? formatDuration(to, 'minute')
    : `${formatDuration(from, 'minute')} – ${formatDuration(to, 'minute')}`
}

/** Days to the half, one half at least: `1½`. */
const halves = (seconds: Seconds): string => formatHalves(Math.max(0.5, seconds / 86_400))

/** To the half: `0`, `½`, `1½`. */
export function formatHalves(value: number): string {
  const n = Math.round(2 * value)
  return `${n === 1 ? '' : Math.floor(n / 2)}${n % 2 ? '½' : ''}`
}

/**
 * Compressive strength in MPa, or for those who weigh in pounds in psi (1 MPa = 145.038 psi, NIST SP 811); two figures
 * are all that is known.
 */
export function formatStrength(mpa: number, prefs: UnitPreferences): string {
  if (prefs.mass === 'lb') return `${roundTo(mpa * 145.038, mpa < 7 ? 10 : 100)} psi`
  return `${roundTo(mpa, mpa < 10 ? 0.1 : 1)} MPa`
}

/** Density as kilograms a litre, or pounds a cubic foot. */
export function formatDensity(kgPerM3: number, prefs: UnitPreferences): string {
  return prefs.mass === 'lb' ? `${roundTo(kgPerM3 * 0.0624280, 1)} lb/ft³` : `${roundTo(kgPerM3 / 1000, 0.01)} kg/l`
}

/** A share as a percentage with three figures at most: `12 %`, `1.5 %`, `0.05 %`. */
export function formatPercent(share: number): string {
  const percent = share * 100, size = Math.abs(percent)
  const shown = roundTo(percent, size >= 10 ? 1 : size >= 0.995 ? 0.1 : 0.01)
  return `${shown.includes('.') ? shown.replace(/\.?0+$/, '') : shown} %`
}

/** Water per 100 powder, the way the trade writes a consistency. */
export function formatConsistency(ratio: number): string {
  return roundTo(ratio * 100, 1)
}
