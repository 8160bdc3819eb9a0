import type { LeverId } from './levers'
import type { Outcome, PieceOutcome } from './outcome'
import type { ScenarioId } from './scenarios'
import type { FlowSign, LumpSign, SurfaceSign, WarmthSign } from './senses'

/** What practice says: what there is to try, what eyes and hands tell, what became of it, the one thing to change. */

interface ScenarioWords { readonly name: string, readonly teaches: string, readonly job: string }
export const SCENARIO_WORDS: Readonly<Record<ScenarioId, ScenarioWords>> = {
  'first-bowl': { name: 'First bowl', teaches: 'Soak, then stir until it is smooth.', job: 'A block in silicone, weighed.' },
  'heap': { name: 'In one heap', teaches: 'Powder goes over the whole surface.', job: 'Pottery plaster for a block.' },
  'kit-bag': { name: 'A bag for a kit', teaches: 'Knead until no white is felt, corners too.', job: 'A flat mould from a bag.' },
  'thin-plate': { name: 'A thin plate', teaches: 'Warm is not done.', job: 'A plate of 8 mm in silicone.' },
  'whisk': { name: 'The kitchen whisk', teaches: 'Stir under the surface, and slowly.', job: 'A block in silicone.' },
  'high': { name: 'From up here', teaches: 'Pour low, at one point.', job: 'Gypsum cement for a block.' },
  'warm-tap': { name: 'Warm from the tap', teaches: 'Hot water makes lumps.', job: 'The tap runs hot unless one waits.' },
  'dirty': { name: 'A crusted bucket', teaches: 'Old plaster hurries new plaster.', job: 'The bucket of yesterday.' },
  'leak': { name: 'It drips', teaches: 'Clay at once, then top up.', job: 'A mould with a seam.' },
  'short': { name: 'Running short', teaches: 'Mix enough: the powder takes room too.', job: 'Two litres of gypsum cement.' },
  'paint': { name: 'Painted the same day', teaches: 'Dry first, then paint.', job: 'A piece of 25 mm, to be painted.' },
  'no-soak': { name: 'Hands off', teaches: 'Patience saves stirring.', job: 'Casting plaster, soaked for 2½ minutes.' },
  'over-stirred': { name: 'Stirred to death', teaches: 'Stop when it is smooth.', job: 'Two and a half litres, with a drill.' },
  'islands': { name: 'Islands by eye', teaches: 'Islands that stay mean enough.', job: 'A litre, and no scale.' },
  'crust': { name: 'A crust all over', teaches: 'Lift off what stays dry; never stir it in.', job: 'A litre, and no scale.' },
  'hand': { name: 'Hooked fingers', teaches: 'A little first, tilt, tap: give air a way out.', job: 'A hand in a soft impression.' },
  'stone-table': { name: 'Dense stone on the table', teaches: 'Nothing rises out of this by itself.', job: 'A stone of 31, brushed and shaken.' },
  'latex': { name: 'A sleeve, swilled', teaches: 'Wait until it films; then it stays on the wall.', job: 'A wall of 9 mm in a sleeve.' },
  'investment': { name: 'Plaster and silica', teaches: 'Dumped at once, and left for three minutes.', job: 'Three litres of shell.' },
  'two-buckets': { name: 'Two buckets, one slab', teaches: 'The second before the first loses its gloss.', job: 'A slab of eight litres.' },
  'old-bag': { name: 'An old bag', teaches: 'Sieve it, and open by warmth.', job: 'A bag that stood open.' },
  'hot-day': { name: 'A slab on a hot day', teaches: 'Cold water is time.', job: 'Nine litres, and a hose that lay in the sun.' },
  'field-print': { name: 'Print on cold ground', teaches: 'Cold sets late: leave it overnight.', job: 'A print out in the cold, stone from a bag.' },
  'salt': { name: 'Something in the jar', teaches: 'The mix is the clock.', job: 'The plan says soak 3 min, stir 3.' },
  'row': { name: 'Late in a row', teaches: 'The finest first.', job: 'Thirty little moulds, six with thin parts.' },
  'dental': { name: 'Under time', teaches: 'Everything ready before it is wet.', job: 'A model stone for a tray.' },
  'pottery-20': { name: 'Twenty kilos by the bag', teaches: 'Size takes time: cold water, no dawdling.', job: 'Twenty litres of pottery plaster.' },
  'frost': { name: 'Frost tonight', teaches: 'Warm water, and cover it.', job: 'A print in the snow.' },
}

export const LEVEL_WORDS = { 1: 'To begin with', 2: 'Harder', 3: 'Mean' } as const

/** The one thing, as what to do next time. */
export const LEVER_WORDS: Readonly<Record<LeverId, string>> = {
  'scrub': 'Scrub the bucket first: old plaster in it hurries the new.',
  'water': 'Take the water as warm or cold as the plan has it.',
  'gauge': 'Keep to the ratio: that much powder for that much water.',
  'amount': 'Mix more: there was not enough to fill it.',
  'sieve': 'Sieve it: caked powder leaves crumbs.',
  'spread': 'Strew it over the whole surface, a handful at a time.',
  'soak': 'Leave it to soak, as long as planned, and no longer.',
  'tool': 'Stir slowly and under the surface: beating draws air in.',
  'stir-more': 'Stir longer: until no lump is felt.',
  'stir-less': 'Stop when it is smooth: stirring on spoils it.',
  'watch': 'Go by the mix and not by the clock: it coated early.',
  'late': 'Pour at once when it is stirred.',
  'second': 'Mix the second bucket at once, while the first is still wet.',
  'order': 'Fill the finest first, while it is thin.',
  'height': 'Pour low, at one point.',
  'tilt': 'A little first, tilt it and tap: then fill.',
  'coat': 'Brush a first coat on.',
  'tap': 'Tap it, and for longer.',
  'plug': 'Stop the leak with clay, then top up.',
  'swill': 'Wait until it films before it is swilled, and swill it again.',
  'open': 'Leave it longer before you open it.',
  'paint': 'Let it dry before you paint.',
}

export const SURFACE_WORDS: Readonly<Record<SurfaceSign, string>> = {
  'empty': 'Clear water.', 'clear': 'Clear water; islands sink.', 'heap': 'A heap in one place.',
  'dry-sinking': 'Dry all over, still sinking.', 'islands': 'Islands stay; their edges are wet.', 'crust': 'A dry crust all over.',
}
export const FLOW_WORDS: Readonly<Record<FlowSign, string>> = {
  water: 'It runs like water.', cream: 'Like cream.', coats: 'It coats the glove evenly.',
  films: 'A film stays between spread fingers.', stiff: 'It will hardly pour.', matt: 'Its gloss has gone.',
}
export const LUMP_WORDS: Readonly<Record<LumpSign, string>> = {
  none: 'No lump in a handful.', few: 'A lump or two in a handful.', many: 'Lumps, many.',
}
export const WARMTH_WORDS: Readonly<Record<WarmthSign, string>> = {
  cold: 'Cold.', cool: 'Cool.', room: 'As warm as the room.', warm: 'Warm.', hot: 'Warm through the wall.',
}
export const SENSE_WORDS = {
  empty: 'The bucket is empty.', crusted: 'Old plaster on the bucket’s wall.', crumbs: 'Crumbs in the handful.',
  streaks: 'Streaks in it.', drips: 'It drips.',
} as const

export const PRACTICE_VERDICT_WORDS: Readonly<Record<Outcome['verdict'], string>> = {
  good: 'A good piece', second: 'A second', waste: 'Waste',
}

/** What can be seen on a piece, the worst first. */
export function faultsOf(p: PieceOutcome): readonly string[] {
  const found: readonly (readonly [boolean, string])[] = [
    [p.missing > 0.9, 'Nothing in the mould'],
    [p.frozen, 'It froze before it was hard'],
    [p.broken, 'It broke coming out'],
    [p.layer, 'A line between two pours'],
    [p.damp, 'The paint blooms: it was damp'],
    [p.missing > 0.02 && p.missing <= 0.9, 'Not filled to the top'],
    [p.voids > 0.05, 'Parts are missing where air stayed'],
    [p.lumps > 3, 'White specks of dry powder'],
    [p.streaks, 'Streaks'],
    [p.bubbles > 5, 'Pinholes'],
    [p.wall < 0.85, 'The wall is thin'],
    [p.missing <= 0.9 && p.strength < 0.8, 'Soft and weak'],
  ]
  return found.flatMap(([is, words]) => is ? [words] : [])
}
