/** What numbers in questions stand for. */
export type { Celsius, Kilograms, Metres } from '../units/quantity'
export type Litres = number
export type Minutes = number
