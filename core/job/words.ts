import type { DipProblem } from './dip'
import type { JobMoment } from './moments'

/** What jobs say: chains, tasks, what helps once a window has closed, how a step stands. Common practice, no source. */

const CHAINS = {
  'impression': { name: 'A hand or a foot', what: 'A soft impression of somebody, poured the same day.' },
  'shell': { name: 'Investment shell', what: 'A face coat, then one coat after another before it sets.' },
  'two-part': { name: 'Mould in two halves', what: 'One half in clay, the other against it, soap between them.' },
  'small-pieces': { name: 'Small pieces', what: 'A row of little moulds, scraped flat while they are soft.' },
  'class-kits': { name: 'Kits for a class', what: 'A bag for each child, kneaded and poured by themselves.' },
  'dental': { name: 'Dental cast', what: 'The teeth first, the base onto them, trimmed when it is hard.' },
  'ground-print': { name: 'Print in the ground', what: 'Photo, ring, pour, lift it with its soil.' },
  'drying-slab': { name: 'Drying slabs', what: 'Two slabs from one pan, one after the other.' },
  'hump-moulds': { name: 'Hump moulds', what: 'Bowls poured full, for clay to be laid over.' },
  'skin-mould': { name: 'Skin mould in a jacket', what: 'Thin coats swilled round a soft mould in two halves.' },
  'latex-sleeve': { name: 'Latex sleeve', what: 'A stretched skin, rolled, filled and peeled inside out.' },
  'damp-store': { name: 'Damp store in two goes', what: 'What was left over, and the rest later on top of it.' },
  'props': { name: 'Break-away props', what: 'Thin and weak on purpose, dry by the next day.' },
} as const satisfies Record<string, { readonly name: string, readonly what: string }>
export type ChainId = keyof typeof CHAINS
export const CHAIN_WORDS: Readonly<Record<ChainId, { readonly name: string, readonly what: string }>> = CHAINS
export const CHAIN_IDS = Object.keys(CHAINS) as [ChainId, ...ChainId[]]

interface Task { readonly name: string, readonly how: string }
const TASKS = {
  'dip-test': { name: 'Try it with water', how: 'Water to cover the hand in the container you will use. Mark where it stands with the hand in, and without.' },
  'ready-impression': { name: 'Get everything to hand', how: 'A finger’s width clear all round, taller than wide. Towel, clock and the mix weighed; sleeves up, rings off.' },
  'mix-impression': { name: 'Mix the impression powder', how: 'The pack’s own ratio, mask while it is dry. Cool water gives more time. Two to four minutes to mix and place.' },
  'hand-in': { name: 'Hand in', how: 'Wet the skin first. Slide in, wriggle the fingers so that no air stays, then keep still.' },
  'hold': { name: 'Hold still', how: 'It feels firm long before it is done. Stay in until the clock says so.' },
  'break-seal': { name: 'Out, slowly', how: 'Small movements let the air in. Somebody holds the impression down; do not pull.' },
  'check-impression': { name: 'Look inside', how: 'Shake the crumbs out, pour off water. A torn finger is closed from outside with a strip of tape.' },
  'pour-impression': { name: 'Pour the impression', how: 'A little first, tilt it into the fingers, tap, then fill and tap for long. The sooner the better: it shrinks.' },
  'tear-off': { name: 'Tear the impression off', how: 'In pieces, thin fingers last. Do not pull on a finger.' },
  'clean-cast': { name: 'Clean the cast', how: 'Wooden stick, rinse, dab, never rub. Flick the nibs off while it is still soft.' },
  'dries': { name: 'It dries', how: 'Moving air on all sides, no sun, no heater.' },
  'weigh-kits': { name: 'Weigh the kits', how: 'Powder into strong bags, water into cups, colour beside it, a label each.' },
  'lay-moulds': { name: 'Lay the moulds out', how: 'Level, clean, an overflow mould at hand.' },
  'knead-bags': { name: 'Water in, knead, pour', how: 'Press the air out, knead gently until no white is left, cut a corner, fill almost to the top.' },
  'tiny-taps': { name: 'Tiny taps', how: 'Tap the table, not the mould.' },
  'pop-out': { name: 'Pop them out', how: 'When they are no longer cold and wet. Press from below with both thumbs.' },
  'check-tray': { name: 'Check the impression', how: 'Clean, dry, no drops of water in the teeth.' },
  'pour-teeth': { name: 'Pour the teeth', how: 'A little at one end, on the vibrator, so that it flows across and drives the air before it.' },
  'pour-base': { name: 'Base onto it', how: 'A second mix, thicker. Some on top, then turn the cast onto it.' },
  'clear-excess': { name: 'Clear the excess', how: 'While it is soft. Keep the tongue’s room open.' },
  'sets': { name: 'It sets', how: 'All layers. Do not move it.' },
  'free-tray': { name: 'Free the tray', how: 'Cut away what covers the rim. Warm water for some seconds softens wax; pivot it off.' },
  'trim-model': { name: 'Trim', how: 'Walls upright, a land round the fold, 15 mm of base and nowhere under 10.' },
  'close-jacket': { name: 'Close the jacket', how: 'Tape that does not stretch, and not so tight that the edge squeezes.' },
  'swill-coat': { name: 'First coat, swilled', how: 'Thin. Turn it until every part is white, brush it into the deep places.' },
  'next-coat': { name: 'Another coat', how: 'Onto the one before while that is soft enough to bond.' },
  'open-jacket': { name: 'Open the jacket', how: 'Tape off, halves apart, the skin stays on.' },
  'peel-skin': { name: 'Skin off', how: 'Seam by seam, talc where it sticks.' },
  'photo-print': { name: 'Photo first', how: 'Straight from above, low light, no flash, a ruler at right angles.' },
  'set-ring': { name: 'Ring in', how: 'Pressed in and sealed, 13 mm higher than the ground inside.' },
  'pour-print': { name: 'Pour the print', how: 'Deepest places first over a stick or spoon, then fill.' },
  'scratch-day': { name: 'Place, day, initials', how: 'Scratched into the back while it is soft.' },
  'lift-print': { name: 'Lift it with its soil', how: 'Ring off, dig round, never pry.' },
  'airs': { name: 'Face up in moving air', how: 'No sun. Leave the soil on.' },
  'brush-print': { name: 'Brush and rinse', how: 'Softly, without pressure. Label on the back.' },
  'level-pan': { name: 'Level the pan', how: 'Corners clean, level both ways.' },
  'pour-slab': { name: 'Pour the slab', how: 'Mist of alcohol over the top against bubbles.' },
  'drag-water': { name: 'Drag the water off', how: 'What stands on top, with a straight edge, once it is solid below.' },
  'slab-out': { name: 'Slab out, on edge', how: 'When it is hard. Round the corners while it cuts like cheese.' },
  'pour-slab-again': { name: 'The second slab', how: 'In the same pan, at once.' },
  'forms-dry': { name: 'Forms dry', how: 'Waste forms uncovered until they carry the plaster.' },
  'oil-forms': { name: 'Film on the forms', how: 'Bought bowls only, very thin and even.' },
  'pour-hump': { name: 'Pour the humps', how: 'Large batch, stirred slowly by hand, poured gently.' },
  'flex-off': { name: 'Form off', how: 'Flex a rigid one against its suction, peel clay.' },
  'scrape-edge': { name: 'Scrape the sharp edge', how: 'And scrub the streaks off.' },
  'dries-clay': { name: 'It dries', how: 'A week before clay is draped on it.' },
  'bed-model': { name: 'Bed the model in clay', how: 'Half in clay, walls round it, keys pressed in.' },
  'pour-half': { name: 'Pour the first half', how: 'Low, at one corner, until it covers by a finger or two.' },
  'clay-out': { name: 'Clay out', how: 'Turn it over. Clay out before it dries; the model stays in.' },
  'soap-half': { name: 'Soap or grease', how: 'Every face that meets the other half. Twice.' },
  'pour-other-half': { name: 'Pour the other half', how: 'Against the first, walls up again.' },
  'open-halves': { name: 'Open it', how: 'Tap along the seam, wait, tap again.' },
  'both-dry': { name: 'Both halves dry', how: 'Closed with a band so that they do not warp.' },
  'clay-reservoir': { name: 'Clay under the model', how: 'A reservoir of clay, release on all of it.' },
  'dry-parts': { name: 'Mix the dry parts dry', how: 'Silica: fitted respirator, extraction on. Water in another bucket, equal weights.' },
  'face-coat': { name: 'Face coat', how: 'Dump, soak 3 minutes, stir 2. Push it into all detail with a brush.' },
  'second-look': { name: 'A second look', how: 'Low light from the side. What was missed gets a dab now.' },
  'shell-coat': { name: 'Next coat', how: 'Clean the bucket and mix again at once. Even wall, rough face.' },
  'stands-still': { name: 'It stands still', how: 'Half an hour, nobody touches it.' },
  'dig-clay': { name: 'Turn it, clay out', how: 'Within half an hour, not overnight.' },
  'pour-leftover': { name: 'What was left over', how: 'Of another pour, into the bin.' },
  'score-and-wet': { name: 'Score and wet', how: 'Criss-cross, then water until it drinks no more.' },
  'bonding-coat': { name: 'Thin bonding coat', how: 'Tapped for two minutes.' },
  'pour-rest': { name: 'The rest on top', how: 'At about a quarter of an hour of slow mixing.' },
  'smooth-top': { name: 'Smooth the top', how: 'A wet blade, once.' },
  'kept-damp': { name: 'It stays damp', how: 'Covered. Look for mildew after some days.' },
  'hang-sleeve': { name: 'Hang the sleeve', how: 'A box with a hole holds the flange. Slit webs between touching parts now.' },
  'roll-and-fill': { name: 'Roll, then fill', how: 'A little first: squeeze and roll it to coat all. Then fill.' },
  'tap-below': { name: 'Tap from below', how: 'Air from the tips.' },
  'peel-sleeve': { name: 'Peel it inside out', how: 'Talc. Thin necks last.' },
  'pour-six': { name: 'Pour all six', how: 'Thin. Overfill, the worst one last, what is over into the overflow mould.' },
  'scrape-flat': { name: 'Scrape flat', how: 'Along a straight edge, without digging in.' },
  'clean-tools': { name: 'Clean the tools', how: 'Wipe, let it set, crack it out. Nothing goes down a drain.' },
  'open-and-box': { name: 'Open, check, box', how: 'Then the next round.' },
  'pour-thin': { name: 'Pour thin and even', how: 'Two to one, cold water.' },
  'open-gently': { name: 'Open gently', how: 'Cool by then. It is meant to break, later.' },
  'paint': { name: 'Paint', how: 'Thin, no sealer.' },
} as const satisfies Record<string, Task>
export type TaskId = keyof typeof TASKS
export const TASK_WORDS: Readonly<Record<TaskId, Task>> = TASKS
export const TASK_IDS = Object.keys(TASKS) as [TaskId, ...TaskId[]]

const HELPS = {
  'score-and-wet': 'The coat below has set. Score it criss-cross, wet it until it drinks no more, then a thin coat rubbed in first.',
  'new-impression': 'It has begun to set in the bowl. Throw it away and mix again: the hand goes into a soft mix only.',
  'dried-impression': 'It has begun to shrink. Keep it under a wet cloth in a closed bag and pour it now; by tomorrow take a new one.',
  'skin-time': 'Out now. Breaking the seal gets harder, not easier.',
  'hard-tear': 'It has dried onto the cast. Wet it through first, then pick it off in small pieces.',
  'hard-nibs': 'The nibs have hardened. Wet them and take them down with a blade, a little at a time.',
  'leave-it': 'Leave it alone now: it is setting, and each knock makes a crack.',
  'rasp-wet': 'Too hard to scrape. Rasp it wet, before it dries.',
  'warm-water': 'Hold it in warm water for a minute, and again, before you pivot it.',
  'soak-trim': 'Soak it for five minutes, and trim it wet.',
  'look-again': 'Look again before you pour: what fell in is taken out with tweezers.',
  'write-later': 'Scratching cracks it now. Write on a label, and on the back once it is dry.',
  'wait-water': 'What still stands there is left; it dries off.',
  'clay-dried': 'The clay has dried in. Wet cloths for an hour, then wood, not metal.',
  'soap-again': 'Soap it again, twice: the first has soaked away.',
  'wet-again': 'It has dried. Wet it again, then coat it at once.',
  'soak-tools': 'It has set on them. Leave them in a bucket of water and crack it off.',
} as const
export type HelpId = keyof typeof HELPS
export const HELP_WORDS: Readonly<Record<HelpId, string>> = HELPS
export const HELP_IDS = Object.keys(HELPS) as [HelpId, ...HelpId[]]

const CAUTIONS = {
  skin: 'Never set plaster round a hand, a foot or a face: it burns deeply. Only the impression mix touches skin.',
  silica: 'Silica dust stays in the lungs. A fitted respirator, extraction, wet cleaning, clothes changed.',
  hot: 'Burning out and pouring metal needs trained practice.',
  mask: 'Mask from opening the bag until the powder is wet. Nothing goes down a drain.',
  eyes: 'Goggles for whoever breaks it, and for whoever stands near.',
  licensed: 'The licensed person stays responsible for what goes into a mouth.',
} as const
export type CautionId = keyof typeof CAUTIONS
export const CAUTION_IDS = Object.keys(CAUTIONS) as [CautionId, ...CautionId[]]
export const JOB_CAUTION_WORDS: Readonly<Record<CautionId, string>> = CAUTIONS

/** Why the water marks of a dip test give nothing. */
export const DIP_PROBLEM_WORDS: Readonly<Record<DipProblem, string>> = {
  'not-risen': 'The water has to stand higher with the hand in than without it.',
  'over-rim': 'That is above the rim of this container.',
}

/** How a step stands, in a word. */
export const STEP_STATE_WORDS = {
  done: 'done', running: 'running', waiting: 'waiting', now: 'now', ahead: 'later', missed: 'too late',
} as const

/** What a step is called: as somebody wrote it, else as the product does. */
interface Named { readonly name?: string | undefined, readonly task?: TaskId | undefined }
export const nameOfStep = ({ name, task }: Named): string =>
  name || (task ? TASK_WORDS[task].name : 'A step')

/** A moment of a job, told from afar. @param last when it must have begun, as a time; none where nothing presses */
export function jobMomentWords(kind: JobMoment['kind'], step: string, last?: string): string {
  switch (kind) {
    case 'opens': return last ? `${step}: now, until ${last}.` : `${step}: from now on.`
    case 'closing': return `${step}: by ${last} at the latest.`
    case 'over': return `${step}: that was long enough.`
  }
}

/** What clashes within a job. @param names of its steps, in order */
export function jobProblemWords(code: 'loop' | 'no-room', names: readonly string[], minutes: number): string {
  const list = names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : names[0] ?? ''
  return code === 'loop'
    ? `${list} each wait for the other. Let one of them come first.`
    : `${list} do not fit between each other: ${minutes} min too little. Give one of their windows more room.`
}
