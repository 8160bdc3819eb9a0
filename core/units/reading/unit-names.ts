import type { Region, UnitKind } from '../units'

/**
 * Units as people write them. Exact factors: international pound and yard 1959, US gallon of 231 cubic inches, imperial
 * gallon of 4.54609 l (NIST SP 811, app. B; UK Units of Measurement Regulations 1995; from memory).
 */
export interface ReadUnit {
  readonly id: string
  readonly kind: UnitKind
  readonly toSi: (x: number) => number
  /** Where it is this large; the same name may be another size elsewhere. */
  readonly region?: Region
}

const POUND = 0.45359237, INCH = 0.0254, US_GALLON = 231 * INCH ** 3, IMPERIAL_GALLON = 4.54609e-3
const scaled = (id: string, kind: UnitKind, factor: number, region?: Region): ReadUnit =>
  ({ id, kind, toSi: x => x * factor, ...region && { region } })
/** A name that has a size of its own in the US and in the UK. */
const both = (id: string, us: number, imperial: number): readonly ReadUnit[] =>
  [scaled(id, 'volume', US_GALLON / us, 'us'), scaled(id, 'volume', IMPERIAL_GALLON / imperial, 'imperial')]

const CELSIUS: ReadUnit = { id: 'C', kind: 'temperature', toSi: x => x }
const FAHRENHEIT: ReadUnit = { id: 'F', kind: 'temperature', toSi: x => (x - 32) / 1.8 }

/** Names, and what each may mean, without their regions' words before them. */
const NAMES: readonly (readonly [readonly string[], readonly ReadUnit[]])[] = [
  [['mg', 'milligram', 'milligrams'], [scaled('mg', 'mass', 1e-6)]],
  [['g', 'gr', 'gm', 'gms', 'gram', 'grams', 'gramme', 'grammes'], [scaled('g', 'mass', 1e-3)]],
  [['kg', 'kgs', 'kilo', 'kilos', 'kilogram', 'kilograms'], [scaled('kg', 'mass', 1)]],
  [['tonne', 'tonnes'], [scaled('t', 'mass', 1000)]],
  [['oz', 'ozs', 'ounce', 'ounces'], [scaled('oz', 'mass', POUND / 16), ...both('floz', 128, 160)]],
  [['lb', 'lbs', 'pound', 'pounds', '#'], [scaled('lb', 'mass', POUND)]],
  [['st', 'stone', 'stones'], [scaled('st', 'mass', 14 * POUND)]],
  [['ml', 'cc', 'cm3', 'millilitre', 'millilitres', 'milliliter', 'milliliters', 'cubic cm'], [scaled('ml', 'volume', 1e-6)]],
  [['cl', 'centilitre', 'centilitres'], [scaled('cl', 'volume', 1e-5)]],
  [['dl', 'decilitre', 'decilitres'], [scaled('dl', 'volume', 1e-4)]],
  [['l', 'lt', 'ltr', 'litre', 'litres', 'liter', 'liters', 'dm3'], [scaled('l', 'volume', 1e-3)]],
  [['fl oz', 'fl. oz', 'floz', 'fluid ounce', 'fluid ounces', 'fl ozs'], both('floz', 128, 160)],
  [['cup', 'cups', 'c'], [
    scaled('cup', 'volume', US_GALLON / 16, 'us'), scaled('cup', 'volume', IMPERIAL_GALLON / 16, 'imperial'),
    scaled('cup', 'volume', 250e-6, 'metric'),
  ]],
  [['gill', 'gills'], both('gill', 32, 32)],
  [['pt', 'pts', 'pint', 'pints'], both('pint', 8, 8)],
  [['qt', 'qts', 'quart', 'quarts'], both('qt', 4, 4)],
  [['gal', 'gals', 'gallon', 'gallons'], both('gal', 1, 1)],
  [['tbsp', 'tbsps', 'tablespoon', 'tablespoons'], [
    scaled('tbsp', 'volume', US_GALLON / 256, 'us'), scaled('tbsp', 'volume', 15e-6, 'metric'),
  ]],
  [['tsp', 'tsps', 'teaspoon', 'teaspoons'], [
    scaled('tsp', 'volume', US_GALLON / 768, 'us'), scaled('tsp', 'volume', 5e-6, 'metric'),
  ]],
  [['in3', 'cu in', 'cubic inch', 'cubic inches', 'cu. in'], [scaled('in3', 'volume', INCH ** 3)]],
  [['ft3', 'cu ft', 'cubic foot', 'cubic feet'], [scaled('ft3', 'volume', (12 * INCH) ** 3)]],
  [['m3', 'cubic metre', 'cubic metres', 'cubic meter', 'cubic meters'], [scaled('m3', 'volume', 1)]],
  [['thou'], [scaled('thou', 'length', INCH / 1000)]],
  [['mm', 'millimetre', 'millimetres', 'millimeter', 'millimeters'], [scaled('mm', 'length', 1e-3)]],
  [['cm', 'centimetre', 'centimetres', 'centimeter', 'centimeters'], [scaled('cm', 'length', 1e-2)]],
  [['m', 'metre', 'metres', 'meter', 'meters'], [scaled('m', 'length', 1), scaled('min', 'time', 60)]],
  [['in', 'inch', 'inches', '"', '\'\''], [scaled('inch', 'length', INCH)]],
  [['\''], [scaled('foot', 'length', 12 * INCH), scaled('min', 'time', 60)]],
  [['ft', 'foot', 'feet'], [scaled('foot', 'length', 12 * INCH)]],
  [['yd', 'yds', 'yard', 'yards'], [scaled('yd', 'length', 36 * INCH)]],
  [['°c', '° c', 'c', 'deg c', 'degrees c', 'degree c', 'celsius', 'degrees celsius', 'centigrade'], [CELSIUS]],
  [['°f', '° f', 'f', 'deg f', 'degrees f', 'degree f', 'fahrenheit', 'degrees fahrenheit'], [FAHRENHEIT]],
  [['s', 'sec', 'secs', 'second', 'seconds'], [scaled('s', 'time', 1)]],
  [['"'], [scaled('s', 'time', 1)]],
  [['min', 'mins', 'minute', 'minutes'], [scaled('min', 'time', 60)]],
  [['h', 'hr', 'hrs', 'hour', 'hours'], [scaled('h', 'time', 3600)]],
  [['d', 'day', 'days'], [scaled('day', 'time', 86_400)]],
  [['week', 'weeks', 'wk', 'wks'], [scaled('week', 'time', 7 * 86_400)]],
]
/** Words before a unit that say whose it is. */
const REGIONS: readonly (readonly [RegExp, Region])[] = [
  [/^(us|u\.s\.|american) /, 'us'], [/^(imp|imp\.|imperial|uk|british) /, 'imperial'], [/^metric /, 'metric'],
]

/** Every unit that a name may mean, of any kind; none when nobody writes so. */
export function unitsNamed(written: string): readonly ReadUnit[] {
  let name = written.trim().replace(/\.$/, '')
  let region: Region | undefined
  for (const [before, which] of REGIONS)
    if (before.test(name)) {
      region = which
      name = name.replace(before, '')
    }
  const found = NAMES.filter(([names]) => names.includes(name)).flatMap(([, units]) => units)
  return region ? found.filter(u => u.region === region) : found
}

/** What a bare number is, by kind and choice of units; and what a bare sign of degrees is not. */
export const scaleOf = (kind: 'C' | 'F'): ReadUnit => kind === 'C' ? CELSIUS : FAHRENHEIT

const REGION_WORDS = ['', 'us ', 'u.s. ', 'american ', 'imp ', 'imp. ', 'imperial ', 'uk ', 'british ', 'metric ']
const ALL_NAMES = NAMES.flatMap(([names]) => names).filter(name => /^[a-z]/.test(name))
  .sort((a, b) => b.length - a.length)
/**
 * The unit that some text begins with, whole: `us pint of water` begins with a US pint, `mould` with none.
 * @param kinds which are looked for
 */
export function unitAt(
  text: string, kinds: readonly UnitKind[],
): { readonly written: string, readonly units: readonly ReadUnit[] } | undefined {
  const before = REGION_WORDS.filter(r => text.startsWith(r)).sort((a, b) => b.length - a.length)[0]!
  const rest = text.slice(before.length), written = ALL_NAMES.find(name =>
    rest.startsWith(name) && !/^[a-z\d]/.test(rest.slice(name.length))
    && unitsNamed(before + name).some(u => kinds.includes(u.kind)))
  if (written === undefined) return undefined
  return { written: before + written, units: unitsNamed(before + written).filter(u => kinds.includes(u.kind)) }
}
