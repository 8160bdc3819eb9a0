import type { BagStorage } from './bag-age'
import type { DoingId } from './saying/doing'
import type { UnreadSaying } from './saying/read-saying'
import type { ReadingCode, SayingId } from './sayings'
import type { StirPace, StirTool } from './stirring'
import type { SchoolAdviceCode, SchoolId } from './schools'
import type { PowderClassId } from './powders'
import type { EndUseId } from './end-use'
import type { AdditionId } from './additions'
import type { WayIn } from './ways-in'

/** What people put in beside powder and water: what it does, and what too much of it does. */
export interface AdditionWords {
  readonly name: string
  readonly does: string
  readonly harm: string
  readonly caution?: string
}

export const ADDITION_WORDS: Readonly<Record<AdditionId, AdditionWords>> = {
  'dry-pigment': {
    name: 'Dry pigment',
    does: 'Colours the body; drinks about half its weight of water.',
    harm: 'Weaker and streaky, and the mix stiffens.',
  },
  'liquid-colour': {
    name: 'Liquid colour, no binder',
    does: 'Colours the body. Six tenths of it is water, and counted so.',
    harm: 'Thin, weak and slow to dry.',
  },
  'liquid-paint': {
    name: 'Craft or poster paint',
    does: 'Colours the body. About six tenths of it is water, and counted so; its binder may slow the set.',
    harm: 'Its binder keeps the pores shut: weaker, slow to dry, and it may crack.',
  },
  'sand': {
    name: 'Fine sand',
    does: 'Bulk, weight and tooth; cooler, since it makes no heat, and weaker.',
    harm: 'It settles out of anything thin and the piece is weak.',
  },
  'silica-flour': {
    name: 'Silica flour',
    does: 'Keeps a kiln mould from shrinking; to flow as before it needs about a quarter of its own weight in extra water.',
    harm: 'Too little plaster is left to hold it together.',
    caution: 'Silica dust harms the lungs for good: fitted respirator, extraction, wet clean-up, never sweep it dry.',
  },
  'glass-fibre': {
    name: 'Glass fibre',
    does: 'Holds a broken shell together; stiffens the mix at once. How much tougher it gets is not worked out here.',
    harm: 'It will not pour; press it into layers instead.',
    caution: 'Glass fibre pricks and itches: gloves, sleeves, and eye protection when it is cut.',
  },
  'salt': {
    name: 'Table salt',
    does: 'Speeds the set, most at about 2 %; by 10 % that is gone, and above it slows the set.',
    harm: 'Blooms white, rusts metal nearby, keeps the cast damp.',
  },
  'potassium-sulfate': {
    name: 'Potassium sulfate',
    does: 'Speeds the set strongly and takes away a third of the expansion.',
    harm: 'It sets before it is poured; crystals may bloom.',
  },
  'ground-gypsum': {
    name: 'Ground set plaster',
    does: 'Seeds the set: 1 % about halves the time.',
    harm: 'It sets in the bucket. This is what a dirty bucket does.',
  },
  'citrate': {
    name: 'Citric acid or citrate',
    does: 'Slows the set: 0.1 % makes it take about two and a half times as long.',
    harm: 'It may never harden right through, and stays chalky.',
  },
  'borax': {
    name: 'Borax',
    does: 'Slows the set; 0.5 % makes it take about three and a half times as long.',
    harm: 'Soft faces. In most places it is sold with a warning about fertility.',
    caution: 'Borax may harm fertility: gloves, no dust, away from children.',
  },
  'alum': {
    name: 'Alum',
    does: 'Speeds the set strongly and takes away some of the growth.',
    harm: 'It sets before it is poured.',
  },
  'vinegar': {
    name: 'Vinegar',
    does: 'Said to slow the set; most of that is a saying, citric acid does far more. Nearly all of it is water, and counted so.',
    harm: 'It smells and leaves a soft face.',
  },
  'sugar': {
    name: 'Sugar',
    does: 'Said to stop the set: that is true of cement. Here it slows a little, if at all.',
    harm: 'Sticky, and mildew likes it.',
  },
  'white-glue': {
    name: 'White glue',
    does: 'Tougher, and it may slow the set. Half of it is water, and counted so.',
    harm: 'Foams and stays rubbery.',
  },
  'washing-up': {
    name: 'Washing-up liquid',
    does: 'Foams as soon as it is stirred: a tenth of the mix is air then, and the cast up to half as strong.',
    harm: 'More foam than plaster.',
  },
  'sea-water': {
    name: 'Sea water for all the water',
    does: 'As salt does: it sets in about six tenths of the time, blooms, rusts metal and stays damp.',
    harm: '',
  },
  'hard-water': {
    name: 'Hard water',
    does: 'Sets a shade sooner, if at all; more than that is folklore.',
    harm: '',
  },
  'found-water': {
    name: 'Found or muddy water',
    does: 'Nobody can say: clay, salt and leaf acids pull both ways. Test a cup.',
    harm: '',
  },
  'milk': {
    name: 'Milk for all the water',
    does: 'Its protein slows the set to twice or three times as long. An eighth of it is not water. It smells, and mildew follows.',
    harm: '',
  },
  'tea': {
    name: 'Tea, coffee or wine for the water',
    does: 'Its tannin or tartrate slows the set, nobody knows how much; it stains.',
    harm: '',
  },
  'polymer': {
    name: 'Polymer, counted dry',
    does: 'Tougher, less chalky, sheds water; it may slow the set. A liquid polymer brings water: count it as water.',
    harm: 'Foams, stays rubbery, sticks to polyurethane moulds; release is needed.',
  },
}

/** What a piece is for. */
export interface EndUseWords {
  readonly name: string
  readonly wants: string
  readonly dryWord: string
  readonly caution?: string
}

export const END_USE_WORDS: Readonly<Record<EndUseId, EndUseWords>> = {
  'painted': {
    name: 'To be painted',
    wants: 'A clean face, dry enough for paint that breathes.',
    dryWord: 'dry enough to paint',
  },
  'sealed': {
    name: 'To be sealed',
    wants: 'Dry right through, or the sealer lifts.',
    dryWord: 'dry enough to seal',
  },
  'absorbent': {
    name: 'For pottery moulds and slabs',
    wants: 'Pores: a thinner mix, dried well but never baked.',
    dryWord: 'dry enough for clay',
  },
  'kept-damp': {
    name: 'To stay damp on purpose',
    wants: 'Pores that hold water; re-wet it and watch for mildew.',
    dryWord: 'kept damp',
  },
  'meant-to-break': {
    name: 'Breakaway prop',
    wants: 'Thin and weak, with no hard shards.',
    dryWord: 'dry enough to use',
    caution: 'A breaking prop throws shards: keep it away from eyes and faces and try one first.',
  },
  'dental': {
    name: 'Dental model',
    wants: 'The stated ratio, weighed; measured for size afterwards.',
    dryWord: 'dry enough to trim dry',
    caution: 'The licensed person stays responsible for anything that is fitted to a patient.',
  },
  'investment': {
    name: 'To hold molten glass',
    wants: 'Even thickness, no lumps, bone dry before heat.',
    dryWord: 'bone dry',
    caution: 'Damp plaster in a kiln bursts with steam. Heat only what is bone dry, slowly, with trained people.',
  },
  'outdoors': {
    name: 'To live outdoors',
    wants: 'The densest mix that still pours, then dried and sealed.',
    dryWord: 'dry enough to seal',
    caution: 'Gypsum dissolves slowly in rain: sealed and off the ground it lasts, bare it does not.',
  },
}

/** The classes of powder, by what people call them. */
export interface PowderWords {
  readonly name: string
}

export const POWDER_WORDS: Readonly<Record<PowderClassId, PowderWords>> = {
  'plaster-of-paris': {
    name: 'Plaster of Paris',
  },
  'casting-plaster': {
    name: 'Casting plaster',
  },
  'pottery-plaster': {
    name: 'Pottery plaster',
  },
  'gypsum-cement': {
    name: 'Gypsum cement',
  },
  'high-strength-gypsum-cement': {
    name: 'High-strength gypsum cement',
  },
  'dental-type-2': {
    name: 'Dental plaster, Type 2',
  },
  'dental-type-3': {
    name: 'Dental stone, Type 3',
  },
  'dental-type-4': {
    name: 'Die stone, Type 4',
  },
  'dental-type-5': {
    name: 'Die stone, Type 5',
  },
  'investment-plaster': {
    name: 'Plaster and silica, 1 : 1',
  },
  'plaster-silica': {
    name: 'Plaster and silica, as kept before',
  },
  'other': {
    name: 'Another powder, none of these',
  },
}

/** How an addition goes in, where to say so, and what comes of it with a colour. */
interface WayInWords { readonly name: string, readonly into: string, readonly comes: string }
export const WAY_IN_WORDS: Readonly<Record<WayIn, WayInWords>> = {
  powder: {
    name: 'Dry, with the powder',
    into: 'Into the dry powder',
    comes: 'Shaken or sifted together it is the most even.',
  },
  water: {
    name: 'In the water',
    into: 'Into the water',
    comes: 'Stir it up just before the powder goes in: what settles meanwhile makes a dark bottom.',
  },
  bag: {
    name: 'Into the bag',
    into: 'Into the bag, on the water',
    comes: 'Knead until no streak is left; bags coloured one by one differ a little.',
  },
  fold: {
    name: 'Folded in last',
    into: 'Folded in last',
    comes: 'A few turns leave it marbled. Stirred until it is even, it costs time to pour.',
  },
}

/** How people measure; `short` is one word, for where there is little room. */
export interface SchoolWords {
  readonly name: string
  readonly short: string
  readonly how: string
}

export const SCHOOL_WORDS: Readonly<Record<SchoolId, SchoolWords>> = {
  'weighed': {
    name: 'Weigh',
    short: 'Weigh',
    how: 'Water and powder on a scale, then sift the powder in.',
  },
  'saturation': {
    name: 'Sift to islands',
    short: 'Islands',
    how: 'Measure the water, sift until dry islands stay on top.',
  },
  'scoops': {
    name: 'Scoops',
    short: 'Scoops',
    how: 'Count scoops of powder to scoops of water.',
  },
  'bag': {
    name: 'The bag',
    short: 'Bag',
    how: 'Water into a bag of measured powder, knead, cut a corner.',
  },
  'dumped': {
    name: 'Tip it all in',
    short: 'Tip in',
    how: 'Weighed powder goes in together, so that all of it meets water at the same time.',
  },
  'powder-first': {
    name: 'Water to powder',
    short: 'By feel',
    how: 'Powder measured first, most of the water in, then the rest until it runs as you want it.',
  },
}

/** Tools to stir with. */
interface StirWords {
  readonly name: string
}

/** How fast a hand stirs. */
export const STIR_PACE_WORDS: Readonly<Record<StirPace, { readonly name: string }>> = {
  gentle: { name: 'Gently' },
  steady: { name: 'Steadily' },
  brisk: { name: 'Briskly' },
}

export const STIR_WORDS: Readonly<Record<StirTool, StirWords>> = {
  'spatula': {
    name: 'Spatula',
  },
  'hand': {
    name: 'Hand',
  },
  'whisk': {
    name: 'Whisk',
  },
  'drill': {
    name: 'Drill paddle',
  },
  'kneaded-bag': {
    name: 'Kneaded bag',
  },
  'vacuum-mixer': {
    name: 'Vacuum mixer',
  },
}

/** Why a way of measuring suits a powder or does not. */
export const SCHOOL_ADVICE_WORDS: Readonly<Record<SchoolAdviceCode, string>> = {
  'pottery-alike': 'Pottery moulds that work side by side must drink alike: weigh, so that each has the same pores.',
  'outdoors-dense': 'Outdoors dense plaster lasts, and that needs a thick, weighed mix.',
  'weighed': 'Repeatable with any powder; the ratio is known to a percent or two.',
  'islands-dental':
    'A dental product is weighed: sifting to islands leaves the ratio, expansion and strength to chance.',
  'islands-investment':
    'Plaster and silica settle at different speeds, so islands tell nothing about the ratio; weigh both.',
  'islands-stiff': 'Sifted to islands this powder gives a thin mix and much waste; weigh it if you can.',
  'islands': 'Made for this powder: forgiving, no scale needed; the ratio lands within about a tenth.',
  'scoops-stiff': 'A thick mix has little room for error and a scoop can be out by a sixth; weigh it.',
  'scoops': 'Quick; how the scoop was filled moves the ratio by a tenth or more.',
  'bag': 'For the field, kits and classes: clean and quick, one bag one pour.',
  'dumped-investment': 'The custom for investment: all of it meets the water at once.',
  'dumped': 'Fast, but lumps stay dry inside unless it soaks; sift where the surface matters.',
  'by-feel-dental': 'By feel such a powder ends too thin, since it is meant to be stiff. Weigh both.',
  'by-feel':
    'Quick, and the powder is all used. Lumps hide dry at the bottom, and the last splash makes it thin: read the jug.',
}

export const SAYING_WORDS: Readonly<Record<SayingId, { readonly words: string, readonly short: string }>> = {
  'two-to-one-volume': { words: 'Two to one by volume', short: 'Two to one by volume' },
  'two-to-one-weight': { words: 'Two to one by weight', short: 'Two to one by weight' },
  'three-to-one-volume': { words: 'Three scoops to one', short: 'Three scoops to one' },
  'one-to-one-eye': { words: 'One to one by eye', short: 'One to one by eye' },
  'ten-pounds-a-gallon': { words: 'Ten pounds of powder to a gallon of water', short: 'Ten pounds to a gallon' },
  'one-one-one': { words: 'Plaster, silica, water: one, one, one', short: 'One, one, one' },
  'two-thirds-water': {
    words: 'Two thirds of the mould in water, then sift to islands',
    short: 'Two thirds of the mould in water',
  },
  'third-to-half-water': {
    words: 'Fill the mould a third to a half with water',
    short: 'A third to a half in water',
  },
  'quart-a-square-foot': {
    words: 'A quart of water covers a square foot at half an inch',
    short: 'A quart a square foot',
  },
  'depth-is-depth': {
    words: 'The depth of the water is the depth of the cast',
    short: 'Depth of water, depth of cast',
  },
  'it-doubles': { words: 'It doubles', short: 'It doubles' },
  'third-of-bucket': {
    words: 'Never start with more than a third of the bucket in water',
    short: 'At most a third of the bucket',
  },
}
/** Sayings about doing, as they are said. */
export const DOING_WORDS: Readonly<Record<DoingId, string>> = {
  'starts-when-stirred': 'It only starts when you stir it',
  'over-mixed': 'Over-mixed plaster never sets',
  'tap-while-sifting': 'Never tap the bucket while you sift',
  'never-dump': 'Sift it in, never dump it',
  'hot-water': 'Hot water makes it set faster',
  'machine': 'Machine or hand, it comes to the same',
  'warm-is-done': 'When it is warm it is done',
}
/** What a saying is read as, to stand within a sentence. */
export const READING_WORDS: Readonly<Record<ReadingCode, string>> = {
  'two-scoops': 'two scoops to one',
  'three-scoops': 'three scoops to one',
  'two-kilograms': 'two kilograms to one',
  'even-by-eye': 'as much powder as water, by eye',
  'ten-pounds': 'ten pounds to a US gallon',
  'by-weight': 'by weight',
  'by-volume': 'by volume',
  'to-islands': 'sifted to islands',
  'by-feel': 'by feel, until it runs',
  'recommended': 'at its recommended ratio',
}
/** Why what was typed could not be read as a saying, and what to type instead. */
export const UNREAD_SAYING_WORDS: Readonly<Record<UnreadSaying, string>> = {
  'nothing-typed': 'Type a ratio, like 70, “2 to 1 by volume” or “10 lb to a gallon”.',
  'not-two-amounts': 'Type two amounts, like “2 to 1 by volume”, “10 lb to a gallon” or “70 water to 100 powder”.',
  'nothing': 'Both amounts must be more than zero.',
  'water-without-unit': 'Powder with a unit needs the water with one too, like “10 lb to a gallon”.',
  'powder-without-unit': 'Water with a unit needs the powder with one too, like “2 cups powder to 1 cup water”.',
  'water-missing': 'How much of the other goes with it? Type both, like “1 kg to 700 ml”.',
  'range': 'That is more than one ratio. Type the one you will mix.',
  'too-many': 'Those are more than two amounts. Type powder and water, like “2 to 1 by volume”.',
  'names-silica': 'Plaster, silica and water is a mix for casting metal into. Choose plaster and silica as the powder first.',
  'out-of-bounds': 'No plaster is mixed like that. Water to 100 powder lies between 5 and 300.',
}

/** How a bag is kept. */
export const STORAGE_WORDS: Readonly<Record<BagStorage, string>> = {
  sealed: 'Sealed tight',
  closed: 'Folded shut, in the dry',
  open: 'Open, in the dry',
  damp: 'In a damp place',
}
