import type { Sure } from './grounds'
import type { SettingProblem } from './setting-mix'
import type { Driving } from './flow'
import type { CastShape, MouldMaterial, SettingPlaceId, Surroundings } from './body'

/** What a mould is made of. */
export interface MaterialWords {
  readonly name: string
}

export const MATERIAL_WORDS: Readonly<Record<MouldMaterial, MaterialWords>> = {
  'silicone': {
    name: 'Silicone',
  },
  'polyurethane': {
    name: 'Polyurethane rubber',
  },
  'latex': {
    name: 'Latex',
  },
  'plastic': {
    name: 'Rigid plastic',
  },
  'plaster': {
    name: 'Plaster',
  },
  'clay': {
    name: 'Clay',
  },
  'wood': {
    name: 'Wood',
  },
  'metal': {
    name: 'Metal',
  },
  'glass': {
    name: 'Glass',
  },
  'soft-impression': {
    name: 'Soft one-use impression',
  },
  'tray-impression': {
    name: 'Impression in a tray',
  },
  'thermoplastic': {
    name: 'Thermoplastic, softened warm',
  },
  'ground': {
    name: 'Print in the ground',
  },
}

/** What the heat of a cast can get out of. */
interface CastShapeWords {
  readonly name: string
}

export const CAST_SHAPE_WORDS: Readonly<Record<CastShape, CastShapeWords>> = {
  'open-slab': {
    name: 'Open on top',
  },
  'closed-slab': {
    name: 'Closed, flat',
  },
  'rod': {
    name: 'Closed, long and round',
  },
  'ball': {
    name: 'Closed, as thick as wide',
  },
}

/** What is behind the mould. */
interface SurroundingWords {
  readonly name: string
}

export const SURROUNDING_WORDS: Readonly<Record<Surroundings, SurroundingWords>> = {
  air: {
    name: 'Air all round',
  },
  bench: {
    name: 'On a bench',
  },
  outdoors: {
    name: 'Outdoors, little wind',
  },
  wind: {
    name: 'Outdoors, in wind',
  },
  ground: {
    name: 'On damp ground',
  },
}

/** Where a cast is left to set. */
export const SETTING_PLACE_WORDS: Readonly<Record<SettingPlaceId, { readonly name: string }>> = {
  room: { name: 'In the room, air all round' },
  bench: { name: 'Flat on a bench' },
  roof: { name: 'Outside, under a roof' },
  sky: { name: 'Outside, open to the sky' },
  ground: { name: 'Outside, on damp ground' },
}

/** What drives bubbles out. */
interface DrivingWords {
  readonly name: string
}

export const DRIVING_WORDS: Readonly<Record<Driving, DrivingWords>> = {
  none: {
    name: 'Left alone',
  },
  tapped: {
    name: 'Tapped',
  },
  vibrated: {
    name: 'Vibrating table',
  },
}

/** Why a mix cannot be worked out at all. */
export const SETTING_PROBLEM_WORDS: Readonly<Record<SettingProblem, string>> = {
  'missing-number': 'A number is missing.',
  'no-water': 'A mix needs some water.',
  'no-thickness': 'Cast and mould wall have some thickness.',
  'negative': 'Times and amounts cannot be less than nothing.',
  'no-liquid-water': 'Plaster needs liquid water and a room that people can stand in.',
}

/** What stands behind a figure: how it is worked out, where that is from, and what would make it surer. */
export interface GroundWords {
  readonly how: string
  readonly source: string
  readonly narrow: string
}
export type GroundId
  = | 'steps' | 'pour-by' | 'tap-until' | 'gloss' | 'warmest' | 'open' | 'dry' | 'ratio'
    | 'amounts' | 'late' | 'drinks' | 'cost' | 'water-left' | 'bag-speed' | 'bulk' | 'gauged' | 'told' | 'holds'
    | 'weight' | 'growth' | 'good-share' | 'chart' | 'wear' | 'overlap' | 'mesh' | 'pocket' | 'locked'
    | 'job-step' | 'order-out' | 'order-sure' | 'order-soonest'
export const GROUND_WORDS: Readonly<Record<GroundId, GroundWords>> = {
  'steps': {
    how: 'Sifting takes 1.2 minutes for the first kilogram and grows with its power of 0.6; pouring a third of a minute for '
      + 'the first litre, and ten seconds a mould. Soak and stir are as you set them.',
    source: 'Common practice, no source; the forms between are guesses.',
    narrow: 'Mark your steps at the bench and see how far yours are from these.',
  },
  'pour-by': {
    how: 'Crystals grow on the seeds that stirring makes, faster as it warms; the mix counts as too stiff when its yield '
      + 'stress has grown two and a half times, to 25 Pa at least.',
    source: 'Rate law fitted to handbook set times of the class; the limit is an engineering guess.',
    narrow: 'A cup test of this bag, or a pour whose gloss you mark.',
  },
  'tap-until': {
    how: 'A knock moves the mix while its push is more than the yield stress; a bubble rises by Stokes in the part that '
      + 'flows, and cannot be larger than the cast is thick.',
    source: 'First principles; how hard a bench is knocked is an engineering guess.',
    narrow: 'A vibrating table, whose shake is known.',
  },
  'gloss': {
    how: 'The face loses its water film when enough gypsum has grown for the grains to lock: a yield stress of 20 000 Pa.',
    source: 'Jamming of grains, fitted to handbook set times of the class.',
    narrow: 'Mark it at the bench: the next pour from this bag knows.',
  },
  'warmest': {
    how: 'Setting frees heat as the crystals grow, and it leaves through face, mould and sides; the hottest place is told.',
    source: 'First principles; conduction known to a fifth, air films are engineering guesses.',
    narrow: 'A thermometer in one cast.',
  },
  'open': {
    how: 'A soft mould lets go at a third of the wet strength, a hard one at seven tenths and after the warmest; nine casts '
      + 'in ten are strong enough by then, and 15 % is added.',
    source: 'Strength by pores fitted to handbook figures; shares and margin are engineering guesses.',
    narrow: 'Say when you opened, and how it came out.',
  },
  'dry': {
    how: 'The wet face gives off what heat from the air can evaporate; once the face falls dry it slows, and it is '
      + 'dry enough when the share that its use needs is left.',
    source: 'Psychrometrics checked against a library; where the face falls dry is an engineering guess.',
    narrow: 'Weigh it twice, a day apart.',
  },
  'ratio': {
    how: 'Water over powder by weight; its range is what scale, jug and care leave open.',
    source: 'Rounding by first principles; care is an engineering guess.',
    narrow: 'A finer scale, or more powder at once.',
  },
  'amounts': {
    how: 'What the moulds take, and what stays in the bucket, by the volumes of powder, water, air and what is added: they add '
      + 'up. The water goes by its density at its temperature.',
    source: 'First principles; the density of each powder from handbooks, from memory; the air that is stirred in is a guess.',
    narrow: 'Measure the mould by the weight of its water.',
  },
  'late': {
    how: 'How likely the last mould is filled after the mix is too stiff: both times have their range. What it costs is the '
      + 'narrowest gap, 20 mm long under 50 mm of mix, that it still fills.',
    source: 'First principles; how far hands differ from the pace is a guess.',
    narrow: 'Mark your steps at the bench: the plan goes by your own pace then.',
  },
  'drinks': {
    how: 'Plaster sucks by the root of time and by its pores; the slip wall and the mould share the work, and it is of use '
      + 'until about a third of its pores are full.',
    source: 'Suction and slip as handbooks have them, from memory; known to a half.',
    narrow: 'Stand a dry stick of it in 5 mm of water, and weigh it after 1, 4, 9 and 16 minutes.',
  },
  'cost': {
    how: 'Powder by its price, and the wear of the moulds by what they cost over the casts they last; for each piece that can '
      + 'be used.',
    source: 'Your own prices.',
    narrow: 'Give the bag and the mould their prices.',
  },
  'water-left': {
    how: 'The water that was mixed in, less what the crystals took, is what its pores held when it set; of that, what the '
      + 'air has taken since is gone. Weighings count for more the surer they are.',
    source: 'First principles; how fast the air takes it is in the line on drying.',
    narrow: 'Weigh it again; two weighings the same, a day apart, and it is dry.',
  },
  'bag-speed': {
    how: 'Each pour and each cup whose signs were marked says how fast this bag is against its class, how much stirring '
      + 'speeds it, and how long its end takes. They are put together, the newest counting most.',
    source: 'The setting model weighed by the marks; how much one pour differs from the next is an engineering guess.',
    narrow: 'Mark webbing, gloss and warmest at the bench; after five pours an opening is known to a tenth.',
  },
  'bulk': {
    how: 'A level measure of powder, weighed a few times; half of what they differ by either way.',
    source: 'Your own scoops; what the class lets expect where nobody weighed.',
    narrow: 'Weigh three more scoops, filled as you always fill them.',
  },
  'gauged': {
    how: 'What the mould takes, from how it was measured; several ways of measuring count by how sure each is.',
    source: 'First principles; how well a jug or a rule is read is an engineering guess.',
    narrow: 'Weigh the water it takes, or pour it a few times and weigh what is left over.',
  },
  'told': {
    how: 'What somebody told of the mould, as sure as they said; it was never measured here.',
    source: 'Whoever wrote it down.',
    narrow: 'Measure it once by the weight of the water it takes.',
  },
  'holds': {
    how: 'A round bucket that widens evenly, filled to an eighth of its height below the rim, 25 mm at least.',
    source: 'First principles; the room to stir is common practice.',
    narrow: 'Weigh the water it takes up to there.',
  },
  'weight': {
    how: 'What was mixed for it by its volume, less what had dried by then; eight of ten casts lie between.',
    source: 'First principles; the volume as it was gauged.',
    narrow: 'Measure the mould by the weight of its water.',
  },
  'growth': {
    how: 'Its class grows by so much at its own ratio; less with more water and with grains, more the longer it is stirred.',
    source: 'Handbook values of the class, from memory; how ratio and stirring move them is low in confidence.',
    narrow: 'Measure a piece against its model, dry.',
  },
  'good-share': {
    how: 'Good pieces over those that were inspected. The likely range says how far a season like this one could differ by '
      + 'chance alone, nineteen times in twenty.',
    source: 'Wilson’s score interval (1927).',
    narrow: 'Inspect every piece: with four times as many the range is half as wide.',
  },
  'chart': {
    how: 'When the gloss was marked, over when it was foretold just before. The lines beside the middle are 2.66 times the '
      + 'usual step from one pour to the next; a point outside them, or eight in a row on one side, is hardly chance.',
    source: 'Chart of single values with moving ranges, NIST/SEMATECH e-Handbook of Statistical Methods 6.3.2.2, from memory.',
    narrow: 'Mark the gloss at each pour; a change is seen after about eight.',
  },
  'wear': {
    how: 'All casts out of this mould over what one of its kind lasts, or what you said it lasts.',
    source: 'Common practice, no source; your own figure where you gave one.',
    narrow: 'Write down each tear, and say when a mould was given up.',
  },
  'overlap': {
    how: 'Each step of one bucket is laid beside the next: nobody sifts and pours at once, and each mix is poured before it is '
      + 'too stiff, on its early side.',
    source: 'The pace of the steps is common practice, no source, until your own is known.',
    narrow: 'Mark your steps at the bench: the plan goes by your own pace then.',
  },
  'mesh': {
    how: 'Every triangle of the model makes a slim pyramid with one corner of it; added up with their signs they are its '
      + 'volume. Where parts run through each other, what they share counts once.',
    source: 'First principles; Zhang and Chen, 2001.',
    narrow: 'Nothing, if the file is in the unit you chose. What your mould really takes, its water by weight tells.',
  },
  'pocket': {
    how: 'The model is cut into columns as it stands. The mix is taken to rise evenly, nothing bubbling through: air that '
      + 'would have to sink to get out stays. What one tilt lets out, another may keep.',
    source: 'First principles; the doubt is the width of a column.',
    narrow: 'Finer columns, or a pour: look where the bubbles sat.',
  },
  'locked': {
    how: 'Along the pull, what has some of the piece above it and some below, with mould between, holds the mould fast. '
      + 'Draft is how far each face leans away from the pull.',
    source: 'First principles.',
    narrow: 'Turn the pull until less is locked, or draw the parting yourself.',
  },
  'job-step': {
    how: 'A step may begin once those before it are done and their waits are over, and has to before any of them has '
      + 'waited too long. A wait for plaster goes by the forecast of its own pour.',
    source: 'The steps of the job; their minutes are common practice, no source, until you change them.',
    narrow: 'Say when each step begins and ends: what follows moves with it.',
  },
  'order-out': {
    how: 'Each bucket and each piece takes its minutes at your pace, in your hours; a mould is opened when nine of ten '
      + 'would be strong enough. Thousands of ways to share them out are tried, and every one is checked against the rules.',
    source: 'The pace is common practice, no source, until your own is known; the setting is this powder’s forecast.',
    narrow: 'Mark your steps at the bench, and say when you opened.',
  },
  'order-sure': {
    how: 'The plan is played through 200 times with tasks and setting as they may come out; nothing is begun before its '
      + 'time, and what is late pushes what follows.',
    source: 'The setting varies as its forecast says; hands vary by a tenth a day and a seventh a task, both guesses.',
    narrow: 'Pours of the same powder, with their marks.',
  },
  'order-soonest': {
    how: 'What no plan can beat: the moulds one after the other, the hands’ work, or the buckets, whichever takes longest.',
    source: 'First principles; checked against small orders whose best plan was proved.',
    narrow: 'More of what holds it up: the line above says which that is.',
  },
}
export const SURE_WORDS: Readonly<Record<Sure, string>> = {
  well: 'Well known.', fairly: 'Fairly known: the range holds it eight times in ten.', roughly: 'Roughly known.',
}
