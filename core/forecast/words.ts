import type { Seconds } from '../units/quantity'
import { listed } from '../units/sentences'
import type { BagShift } from './observations'

/** What is said of a forecast that has learnt. */

/** “about 12 minutes sooner than planned”: to what can be known of it. */
export function shiftWords(by: Seconds): string {
  const minutes = Math.abs(by) / 60, step = minutes < 10 ? 1 : minutes < 60 ? 2 : 10
  const told = Math.round(minutes / step) * step
  const long = told >= 120 ? `${Math.round(told / 30) / 2} hours` : `${told} minutes`
  return `about ${long} ${by < 0 ? 'sooner' : 'later'} than planned`
}

/** Less than this is as its class does. */
const ALIKE = 3
const count = (n: number, one: string, many: string) => n === 0 ? [] : [`${n} ${n === 1 ? one : many}`]
/** “In 3 batches it set about 18 % sooner than its class.” */
export function bagShiftWords({ later, batches, cups }: BagShift): string {
  const percent = Math.round(100 * later)
  const known = listed([...count(batches, 'batch', 'batches'), ...count(cups, 'cup', 'cups')])
  return Math.abs(percent) < ALIKE
    ? `In ${known} it set as its class does.`
    : `In ${known} it set about ${Math.abs(percent)} % ${percent < 0 ? 'sooner' : 'later'} than its class.`
}
