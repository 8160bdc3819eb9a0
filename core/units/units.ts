/**
 * The units people use at a casting table, with their exact definitions.
 * Source of every factor: NIST SP 811 (2008), appendix B.8 (values marked exact there).
 */
export type UnitKind = 'mass' | 'volume' | 'length' | 'temperature' | 'time'

export interface Unit {
  readonly kind: UnitKind
  /** How it is written after a number. */
  readonly symbol: string
  readonly toSi: (x: number) => number
  readonly fromSi: (x: number) => number
  /** Every way people write it, lower case. */
  readonly names: readonly string[]
}

function scaled(kind: UnitKind, symbol: string, factor: number, ...names: string[]): Unit {
  return { kind, symbol, names: [symbol.toLowerCase(), ...names], toSi: x => x * factor, fromSi: x => x / factor }
}

const POUND = 0.45359237
const GALLON = 3.785411784e-3
const INCH = 0.0254

export const UNITS = {
  g: scaled('mass', 'g', 1e-3, 'gram', 'grams', 'gr', 'gm'),
  kg: scaled('mass', 'kg', 1, 'kilo', 'kilos', 'kilogram', 'kilograms', 'kgs'),
  oz: scaled('mass', 'oz', POUND / 16, 'ounce', 'ounces'),
  lb: scaled('mass', 'lb', POUND, 'lbs', 'pound', 'pounds'),
  ml: scaled('volume', 'ml', 1e-6, 'millilitre', 'millilitres', 'milliliter', 'milliliters', 'cc', 'cm3'),
  l: scaled('volume', 'l', 1e-3, 'litre', 'litres', 'liter', 'liters', 'lt'),
  floz: scaled(
    'volume',
    'fl oz',
    GALLON / 128,
    'floz',
    'fl. oz',
    'fluid ounce',
    'fluid ounces',
    'oz',
    'ounce',
    'ounces',
  ),
  cup: scaled('volume', 'cup', GALLON / 16, 'cups', 'c'),
  pint: scaled('volume', 'pt', GALLON / 8, 'pint', 'pints'),
  qt: scaled('volume', 'qt', GALLON / 4, 'quart', 'quarts', 'qts'),
  gal: scaled('volume', 'gal', GALLON, 'gallon', 'gallons'),
  mm: scaled('length', 'mm', 1e-3, 'millimetre', 'millimetres', 'millimeter', 'millimeters'),
  cm: scaled('length', 'cm', 1e-2, 'centimetre', 'centimetres', 'centimeter', 'centimeters'),
  m: scaled('length', 'm', 1, 'metre', 'metres', 'meter', 'meters'),
  inch: scaled('length', 'in', INCH, 'inch', 'inches', '"', '″'),
  foot: scaled('length', 'ft', 12 * INCH, 'foot', 'feet', '\'', '′'),
  C: { kind: 'temperature', symbol: '°C', names: ['°c', 'c', 'deg c', 'celsius', '°'], toSi: x => x, fromSi: x => x },
  F: {
    kind: 'temperature', symbol: '°F', names: ['°f', 'f', 'deg f', 'fahrenheit'],
    toSi: x => (x - 32) / 1.8, fromSi: x => x * 1.8 + 32,
  },
  s: scaled('time', 's', 1, 'sec', 'secs', 'second', 'seconds'),
  min: scaled('time', 'min', 60, 'mins', 'minute', 'minutes', 'm'),
  h: scaled('time', 'h', 3600, 'hr', 'hrs', 'hour', 'hours'),
} as const satisfies Record<string, Unit>

/** Whose cups, pints, quarts and gallons. */
export type Region = 'us' | 'imperial' | 'metric'

/** Which unit a bare number means, and which a value is shown in. */
export interface UnitPreferences {
  readonly mass: 'g' | 'lb'
  readonly volume: 'ml' | 'cup'
  readonly length: 'mm' | 'inch'
  readonly temperature: 'C' | 'F'
  /** Not told yet where it is left out. */
  readonly region?: Region
  /** What divides in `1,250` and `1.250`, where the other one groups; a point if not told. */
  readonly decimal?: '.' | ','
}
/** Who shows volumes in cups and has not said whose means the US ones. */
export const regionOf = ({ region, volume }: UnitPreferences): Region | undefined =>
  region ?? (volume === 'cup' ? 'us' : undefined)

export const METRIC: UnitPreferences = { mass: 'g', volume: 'ml', length: 'mm', temperature: 'C' }
export const US_CUSTOMARY: UnitPreferences = { mass: 'lb', volume: 'cup', length: 'inch', temperature: 'F', region: 'us' }
