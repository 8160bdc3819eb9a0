import {
  formatConsistency, formatDuration, formatLength, formatMass, formatTemperature, formatTemperatures, formatVolume,
} from '../units/format'
import { listed, sentenceOf, wordedIn, type Sentences, type Worded } from '../units/sentences'
import { METRIC, type UnitPreferences } from '../units/units'
import type { CoatMoment } from './coat-moment'
import type { OpenStep, OpenStop } from './opening'
import type { SoftId } from './soft'
import type { WeighingStep } from './weighing'
import type { Act, Amounts, Never, NotSetting, RescueReason } from './rescue'

/** What the bench says. Nothing reads these sentences. */

const minutes = (t: number) => formatDuration(t, 'minute')
const amounts = ({ water, powder }: Amounts, prefs: UnitPreferences) =>
  `${formatMass(water, prefs)} water and ${formatMass(powder, prefs)} powder`

const ACTS: Sentences<Act, [prefs: UnitPreferences]> = {
  'leave-it': 'Leave it alone: what is in the moulds is fine.',
  'stop-thick': 'Stop: it no longer levels itself. Press what is thick into open moulds and backs only.',
  'bin-the-rest': 'Let the rest set in the bucket, then bin it.',
  'stop-stirring': 'Stop stirring.',
  'pour-what-flows': 'Pour what flows now, into the most detailed places first.',
  'keep-still': 'Keep it still, out of draught, and warm the room if it is cold.',
  'warm-it': (_, prefs) =>
    `Cover it and bring it to ${formatTemperatures(20, 25, prefs)}; warm air, not a flame or an oven.`,
  'open-by-touch': a =>
    `Open by touch rather than by the clock: it may be ready from ${minutes(a.from)} after wetting.`,
  'fill-in-order': a => `Fill now, thinnest and most detailed first: ${a.casts.join(', ')}.`,
  'time-left': a => `You have about ${formatDuration(a.low)} to ${formatDuration(a.high)}.`,
  'colder-water': (a, prefs) =>
    `Next time: water at ${formatTemperature(10, prefs)} gives about ${formatDuration(Math.round(a.gains / 10) * 10)} more, a clean bucket more `
    + 'than that.',
  'wait-for-gloss': a =>
    `Wait: the gloss may go as late as ${minutes(a.latest)} after wetting, ${formatDuration(a.left)} from now.`,
  'look-again': a =>
    `Look again in half an hour. If a nail still goes in after ${
      minutes(a.lost)
    }, it will never be sound: take it out, `
    + 'clean the mould, and pour again from a fresh bag, with a cup test first.',
  'once-longer': a =>
    `This can be poured only once, so give it time: a day, covered and out of the cold. Past ${minutes(a.lost)} it will `
    + 'stay weak; lift it on its bed and back it before it is moved.',
  'keep-moving': 'Keep it moving, slowly: thick mixes flow while they are stirred and stand when they rest.',
  'work-it-in': 'Brush or press a first thin layer into the detail by hand, then spoon the rest behind it.',
  'next-thinner': 'Next time thin it in the water, before any powder goes in.',
  'let-it-thicken': 'Let it stand a minute or two, then stir gently: it thickens by itself, and pours well at cream.',
  'stir-it-up': 'Stir up what has settled before each pour, so that the last mould is no thinner than the first.',
  'go-by-islands': 'Sift on until dry islands stay on the water: then the mix is right, whatever was counted.',
  'tap-open-face': 'Tap the table or the mould’s sides lightly until no more come up.',
  'mist-open-face': 'Mist the face once with water, or with a drop of soap in it: bubbles burst by themselves.',
  'blow-open-face': 'Blow across it from the side.',
  'prick-open-face': 'Prick the ones that stay with a pin, just through the skin.',
  'leave-open-face': 'Leave the rest for later: scrape or fill them when the cast is out.',
  'spare-moulds': 'Pour the rest into spare moulds: a test bar, a wedge, a doorstop.',
  'note-left-over': 'Note how much is left: the moulds then know what they take.',
  'set-in-bucket': 'Let what is over set in the bucket, flex it out and bin it.',
  'tare-again': 'Empty the pan, switch the scale on, let it settle and begin again from nothing.',
  'weigh-mix': (a, prefs) => `Weigh out ${amounts(a.mix, prefs)}.`,
  'weigh-the-bucket': 'Weigh the bucket with what is in it, and take off the empty bucket and the water: that is the powder.',
  'by-the-line': (a, prefs) =>
    `Or go by height: the water stands ${formatLength(a.water, prefs)} deep, and all of it with the powder `
    + `${formatLength(a.full, prefs)}.`,
  'note-unsure': 'Write down that the ratio is not sure: nothing is then learnt from it.',
  'mask-and-still': 'Mask on, and keep still until the dust has settled.',
  'second-bag': 'Slip the torn bag into a whole one, or into a bin with a lid.',
  'damp-wipe': 'Take up what is spilled with a damp cloth or sponge.',
  'weigh-again': 'What was measured out of it: weigh it again before it meets water.',
  'wait-longer': 'Wait: it is not hard enough yet to be pulled on.',
  'break-seal': 'Go all round the edge with a thin blade or a fingernail, so that the seal is broken everywhere.',
  'flex-off': 'Flex the mould away from the piece, a little on every side, and let it peel, never yank.',
  'air-in': 'Let air or a little water in along one edge: what holds is suction.',
  'tap-out': 'Turn it over onto something soft and tap the back of the mould with your hand.',
  'split-mould': 'Open the parts straight apart, a little at a time on every side.',
  'cut-it-free': 'Cut the impression away in pieces, thin parts last: it is used up anyway.',
  'wet-clay-off': 'Roll the clay off from the edge, towards the piece; soak what stays in hollows and brush it out.',
  'clear-ring': 'Clear the soil away all round, outside the edge of the plaster, so that air gets under it.',
  'undercut': 'Undercut it on every side with a thin tool, a hand’s width below.',
  'warm-indoors': 'Bring it indoors on a board and let it stand; the soil comes off when it is dry.',
  'pack-outside': 'Pack soil or sandbags against the outside of the ring before anything else.',
  'board-the-ring': 'Push boards or a strip of metal into the ground round the print, a hand’s width off.',
  'pour-low': 'Pour low and slowly, over a spoon, at the edge: a stream digs.',
  'stop-and-set': 'Stop pouring and let what is in it set: the next pour then has a floor.',
  'sieve': 'Pour through a coarse sieve or leave the last of the bucket behind.',
  'press-lumps-back': 'In the mould, press the lumps you can see to the back with a wet finger or brush.',
  'soak-longer': 'Let it soak for another minute; hands off.',
  'crush-lumps': 'Crush the lumps between your fingers against the side of the bucket, under the surface.',
  'lift-dry-out': 'Lift out what stays dry inside; do not beat it in.',
  'hold-leak': 'Hold a wad of soft clay or a wet rag on it for a minute: it is about to stop by itself.',
  'press-leak': 'Press soft clay, or a pinch of plaster powder in a wet finger, on the leak from outside.',
  'leak-uppermost': 'Tip the mould so that the leak is uppermost, if you can without spilling.',
  'top-up': 'When it holds, top up at once from the bucket.',
  'note-leak': 'Note where it was: a key, a strap or a bead of clay there before the next pour.',
  'say-missing': 'Say how much is missing, or mark which moulds are filled.',
  'mix-now': (a, prefs) =>
    `Mix ${amounts(a.mix, prefs)} now, the same way but quickly: that is the missing ${
      formatVolume(a.volume, prefs)
    } and `
    + 'a tenth more.',
  'pour-within': a =>
    `Pour it within ${
      formatDuration(Math.round(a.time / 30) * 30)
    }, before the gloss goes; stir the two together a little `
    + 'where they meet.',
  'roughen-face':
    'Let the first pour lose its gloss, then roughen its face with a fork or rasp and wet it until it no longer drinks.',
  'mix-later': (a, prefs) => `Mix ${amounts(a.mix, prefs)}. Brush a thin coat of it on first, then pour the rest.`,
  'pour-off': 'Nothing to do: a little clear water on a set cast is water it did not need. Pour it off.',
  'expect-soft': 'Expect a softer skin there; scrape it when it is dry.',
  'draw-off': 'Do not stir it in. Draw it off with a sponge at the edge when the mix below has webbed.',
  'close-surface': 'Tap gently, once, to close the surface.',
  'thicker-next': 'Next time a little thicker, or stir half a minute longer.',
  'keep-to-ratio': a => `Next time keep to ${formatConsistency(a.planned)}: this is ${formatConsistency(a.ratio)}.`,
  'lift-with-soil': 'Cut a spade’s width around it and lift it with its soil, on a board.',
  'leave-in-mould': 'Leave it in its mould.',
  'thaw': (_, prefs) =>
    `Let it stand in a cool room for an hour, then pour hand-warm water (up to ${formatTemperature(40, prefs)}) along its `
    + 'edge until it comes free.',
  'dry-slowly': 'Dry it slowly, on a rack; look at it before it is handled.',
  'rinse-eye': 'Eye: rinse with clean running water for fifteen minutes, lids held open, and see a doctor.',
  'free-skin':
    'Skin: rinse it off while it is wet. If it has set around a finger or limb, get it off at once, before it warms: cut the mould, break the plaster.',
  'cool-burn': 'Burn: cool it under running water for twenty minutes and get help.',
}

/** One thing to do when it goes wrong. */
export function actWords(act: Act, prefs: UnitPreferences = METRIC): string {
  return sentenceOf(ACTS, act, prefs)
}

const NOT_SETTING: Sentences<NotSetting> = {
  'thin': r => `it is thinner than planned (${formatConsistency(r.ratio)} for ${formatConsistency(r.planned)})`,
  'cold': 'it is cold',
  'retarder': 'a retarder is in it',
  'doubtful-bag': 'the bag is old or unknown',
}

const REASONS: Sentences<RescueReason, [UnitPreferences]> = {
  'set-is-set': 'Set once, it is as strong whether it set fast or slowly; only bubbles and detail suffer from haste.',
  'stirring-seeds': 'Each further turn of the stick makes more seeds and takes time away.',
  'within-range': 'This is still within its range.',
  'usual-dead': 'Dead powder, a dirty bag or a retarding release are the usual reasons.',
  'stirring-costs': 'Stirring now would cost more than the lumps do.',
  'wet-through': 'Lumps are powder that went in too fast to be wet through.',
  'likely': r => `Likely because ${listed(r.because.map(b => sentenceOf(NOT_SETTING, b)))}.`,
  'blocks-itself': 'At this stiffness it blocks small gaps by itself.',
  'still-thin': 'It is still thin enough to run out.',
  'mix-depends': 'What to mix depends on it.',
  'knits': 'While the first still gives, both set as one.',
  'only-rough':
    'On a set face the second only sticks where the first is rough and wet; on a dry one it loses its water and peels.',
  'powder-settles': 'The powder settles until it stiffens, and the water rises.',
  'thick-already': 'It is thick, not late: it still takes the shape of what it is pressed against.',
  'thin-is-weak': 'A thin mix sets as well, only weaker and later; the powder settles out of it if it stands too long.',
  'skin-of-air': 'They sit under a skin of their own: whatever breaks it lets them go.',
  'sets-anyway': 'What is mixed sets, wherever it is.',
  'islands-know': 'Settled powder holds just the water it needs: islands show that better than a count.',
  'dust-harms': 'The dust is what harms; on the floor it harms nobody.',
  'seal-holds': 'It hangs by the seal round its edge and by suction; both go as soon as air gets in.',
  'undercut-holds': 'What overlaps the edge or reaches behind itself holds it.',
  'only-once': 'There is only one of it: it cannot be poured again, so it is freed from around, not pulled.',
  'soil-flows': 'Wet plaster is twice as heavy as water, and loose soil gives.',
  'ice-holds': 'Ice between grains holds it; what froze before it had set stays crumbly for good.',
  'more-water-than-held': r => `At ${formatConsistency(r.ratio)} there is more water than the set plaster holds.`,
  'burns': (r, prefs) =>
    `It gets as warm as ${formatTemperature(r.warmest, prefs)} inside, ${minutes(r.at)} after wetting, and cannot be pulled off.`,
}

export const rescueReasonWords = (reason: RescueReason, prefs: UnitPreferences = METRIC) =>
  sentenceOf(REASONS, reason, prefs)

const NEVERS: Readonly<Record<Never, Worded>> = {
  'no-water': 'No more water: it does not bring time back, it only makes a weak, chalky face.',
  'no-sprinkling': p => `Sprinkling dry powder on, or heat above ${formatTemperature(45, p)}, only hardens the skin.`,
  'no-whisk': 'No whisk at full speed: it makes bubbles and takes minutes off the pouring time.',
  'no-squeezing': 'Do not squeeze the halves together: the cast warps and the leak moves.',
  'no-thinning': 'Do not thin what is left in the bucket to make it go round.',
  'no-dry-powder': 'No dry powder on top: it makes a crust over a weak layer.',
  'no-boiling': 'No boiling water and no heater: the cast cracks.',
  'no-waiting': 'Do not wait for it to cool.',
  'no-levering': 'No levering with a screwdriver: an edge breaks long before the piece moves.',
  'no-leaning': 'No weight on the edge: do not kneel or lean there, or more of it slides in.',
  'no-drain': 'Nothing down a drain: it sets in there.',
  'no-guessing': 'No handful more for luck, and no water to even it out.',
  'no-sweeping': 'No dry sweeping and no compressed air.',
  'no-deep-pricking': 'Do not stir or dig in what has begun to thicken: that leaves scars.',
}
/** What not to do now. */
export const neverWords = (never: Never, prefs: UnitPreferences = METRIC) => wordedIn(NEVERS[never], prefs)

/** How a mould is opened, step by step. */
export const OPEN_STEP_WORDS: Readonly<Record<OpenStep, string>> = {
  'break-seal': 'Break the seal all round: draw the mould away from the edge with your fingertips.',
  'flex-suction': 'Flex it against the suction, a little on every side, until you see the shine of air beneath.',
  'turn-out': 'Turn it over onto something soft and peel the mould off the piece, not the piece out of the mould.',
  'tap-upside-down': 'Turn it upside down over a cushion and tap the back with your hand.',
  'air-under': 'Blow or slip a strip of paper in at one corner: what holds is suction.',
  'straps-off': 'Take the straps off, last on first off, and lay it so that the seam is level.',
  'blade-in-seam': 'Open the seam with a thin blade, a little at each key, all the way round.',
  'pull-straight': 'Lift the upper part straight off, evenly; then the lower one.',
  'talc-outside': 'Dust the outside with talc or wet it with soapy water, so that it slides over itself.',
  'peel-inside-out': 'Roll the rim over and peel it inside out, as one takes off a rubber glove.',
  'hold-piece': 'Hold the piece, not the skin, and keep its thin parts straight as they come free.',
  'roll-clay': 'Roll the clay off from the edge inwards; keep it for the next one if it is clean.',
  'free-overlaps': 'Free whatever overlaps the edge, trimming what ran over.',
  'soak-hollows': 'Soften what stays in hollows with water and brush it out before it dries.',
  'slit-back': 'Slit it at the back, where nothing shows, with the blade held away from the piece.',
  'peel-thick-first': 'Peel it off in pieces, the thick ones first.',
  'thin-parts-last': 'Leave fingers, noses and other thin parts to the last, and free them on all sides first.',
  'warm-softens': 'Stand it in hand-warm water for a minute: it softens and lets go.',
  'lift-tray': 'Lift the tray straight up, with both hands, along the way the teeth or edges stand.',
  'ease-along': 'Ease it off along its length, not twisting.',
  'clear-ring': 'Clear the ring and let air in under the edge.',
  'undercut-ground': 'Undercut it a hand’s width below with a thin tool.',
  'lift-on-board': 'Lift it with its soil, on a board, and turn it over only indoors.',
  'let-soil-dry': 'Let the soil dry on it before you brush it off.',
  'soak-rim': 'Wet the seam well: plaster lets go of wet plaster.',
}
export const OPEN_STOP_WORDS: Readonly<Record<OpenStop, string>> = {
  'wait-quarter': 'If it does not move with a light pull, stop and wait a quarter of an hour. It only gets harder.',
  'no-second-one': 'There is no second one: if it cracks or crumbles, stop, cover it and give it until tomorrow.',
  'something-holds': 'If one place holds, stop there: look for an overlap before you pull again.',
  'once-more-warm': 'If it stays stiff, warm it once more; no hotter than a hand can bear.',
}

const SCORE = 'Score it, wet it until it drinks no more, brush a thin bonding coat on, then the rest.'
/** How the coat before stands, and so how the next one goes on. */
export const COAT_MOMENT_WORDS: Readonly<Record<CoatMoment['state'], string>> = {
  early: 'The coat before still runs: wait until a drawn finger leaves a standing peak.',
  now: 'The coat before stands and still has its gloss: it bonds by itself.',
  late: `The coat before has set. ${SCORE}`,
}

interface SoftWords {
  readonly name: string
  readonly how: string
}
/** What hands do while a cast is soft, and just after it is opened. */
export const SOFT_WORDS: Readonly<Record<SoftId, SoftWords>> = {
  level: { name: 'Level the back', how: 'Tap it level, top up, strike it off or press it flat; mist or blow bubbles off the open face.' },
  back: {
    name: 'Finish the back',
    how: 'Set in a hanger, a rod or cloth; key or scratch the back; day and initials; drag off water that stands on it.',
  },
  scrape: { name: 'Scrape and cut', how: 'Like cheese by now: scrape it flat along a bar and cut its edges clean. Then let it warm in peace.' },
  trim: {
    name: 'Trim it',
    how: 'Clear overlap, flick off nibs and bubbles, round the edges, fill a hole with a dab of the same powder on a wetted place.',
  },
}

const WEIGHING: Sentences<WeighingStep, [UnitPreferences]> = {
  go: ({ grams }, prefs) => `${formatMass(grams / 1000, prefs)} more`,
  slow: ({ grams }, prefs) => `Slowly: ${formatMass(grams / 1000, prefs)} more`,
  there: 'That is it',
  over: ({ grams }, prefs) => `Over by ${formatMass(grams / 1000, prefs)}`,
}
/** What to do at the scale. */
export const weighingWords = (step: WeighingStep, prefs: UnitPreferences) => sentenceOf(WEIGHING, step, prefs)
