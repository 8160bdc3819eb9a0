import type { Celsius } from '../units/quantity'
import { temperatureFactor } from '../setting/kinetics'
import type { PowderClass } from '../gypsum/powders'
import type { SchoolId } from '../gypsum/schools'
import { turnsOf, type Stirring } from '../gypsum/stirring'

/**
 * What to say at a point of choice where practitioners disagree: which custom fits this powder, and why. Common
 * practice, no source, except the numbers of the model.
 */

/** How long to soak. @param minutes chosen. */
export function soakAdvice(school: SchoolId, powder: PowderClass, minutes: number): string {
  if (school === 'bag') return 'A bag is kneaded as soon as it is wet: soaking and stirring are one.'
  if (school === 'dumped')
    return minutes > 1.5
      ? 'Dumped powder only needs half a minute to a minute; longer, and the middle of the heap sets first.'
      : 'Half a minute to a minute wets dumped powder through.'
  if (powder.family === 'dental' || powder.ratio.recommended < 0.35)
    return minutes > 1
      ? 'Stones and dental mixes are soaked for half a minute at most: they have little time to give away.'
      : 'Short, as stones and dental mixes like it.'
  if (minutes < 1) return 'Some stir at once; a minute or more of soak leaves fewer lumps and needs less stirring.'
  if (minutes > 5) return 'Beyond about five minutes nothing more is gained; it starts to set at the bottom.'
  return 'One to three minutes are all taught. Longer gives fewer lumps, less stirring and fewer bubbles, for a little of the time you have.'
}

/** Hand or machine. @param kg powder in the largest batch. */
export function stirAdvice(stir: Stirring, powder: PowderClass, kg: number): string {
  const turns = turnsOf(stir)
  const strength = turns > 250 ? ' This much stirring sets it much sooner and makes it grow more.' : ''
  switch (stir.tool) {
    case 'hand':
      return (kg > 8
        ? 'By hand this much takes long and the lumps win; a drill paddle, kept under, suits it.'
        : 'The hand feels lumps, stirs in least air and leaves the most time.') + strength
    case 'spatula':
      return (kg > 3
        ? 'A spatula is for a bowl; take a hand or a paddle for this much.'
        : 'Right for a bowl, and for the tables this model is fitted to.') + strength
    case 'whisk':
      return 'A whisk leaves lumps in the corners and folds in air; a hand or spatula does better.' + strength
    case 'drill':
      return (kg < 2
        ? 'A drill is too much for so little: it sets soon and foams.'
        : 'For large batches: even and quick, but sooner set. Keep the paddle under, and slow.') + strength
    case 'vacuum-mixer':
      return (powder.family === 'dental' || powder.family === 'investment'
        ? 'The custom for dental and investment mixes: next to no air.'
        : 'Next to no air, and the shortest time to pour.') + strength
    case 'kneaded-bag':
      return 'Knead until no white is left, corners too. Clean hands, but lumps hide in the folds.'
  }
}

/** Cold, room or warm water. @param mixed temperature of water and powder together. */
export function waterAdvice(water: Celsius, room: Celsius, mixed: Celsius): string {
  const speed = temperatureFactor(mixed) / temperatureFactor(room)
  const percent = Math.round(Math.abs(speed - 1) * 100 / 5) * 5
  if (water < room - 4)
    return `Cold water buys time: the mix starts about ${
      percent < 5 ? 'a few percent' : `${percent} %`
    } slower than with room water. Good for large or detailed pours.`
  if (water > room + 4)
    return water > 40
      ? 'Hot water makes lumps and, past 40 °C, does not even set faster.'
      : `Warm water starts it about ${
        percent < 5 ? 'a few percent' : `${percent} %`
      } faster; in a cold shed that helps, at a bench it takes away time to pour.`
  return 'Room water is what most times here are known for.'
}
