/**
 * Quantities are plain numbers in SI units with a phantom brand: a literal may be used anywhere,
 * but a mass can never be handed to something that wants a volume.
 */
declare const unitBrand: unique symbol
type Quantity<U extends string> = number & { readonly [unitBrand]?: U }

export type Kilograms = Quantity<'kg'>
export type CubicMetres = Quantity<'m3'>
export type Metres = Quantity<'m'>
export type Celsius = Quantity<'degC'>
export type Seconds = Quantity<'s'>
/** Water mass over powder mass (a consistency of 70 is a ratio of 0.70). */
export type WaterRatio = Quantity<'kg/kg'>
export type KilogramsPerCubicMetre = Quantity<'kg/m3'>

/** Where a number comes from; shown with it, everywhere. */
export interface Basis {
  readonly kind:
    | 'physics'
    | 'published'
    | 'handbook from memory'
    | 'common practice'
    | 'engineering guess'
    | 'your own record'
    | 'model'
  readonly note: string
}

/** A value that is not known exactly: `low` and `high` are the 10 % and 90 % quantiles. */
export interface Estimate<Q extends number = number> {
  readonly value: Q
  readonly low: Q
  readonly high: Q
  readonly basis: Basis
}

/** Half-width of an 80 % interval in standard deviations of a normal distribution. */
export const Z80 = 1.2815515655446004
