/** The trade's words, in plain ones; each opens from the word itself. Common practice, no source, but for figures. */
export interface Term {
  readonly term: string
  /** Other words for it, by which it is found. */
  readonly also?: string
  readonly means: string
}
const GLOSSARY_WORDS = {
  'accelerator': { term: 'Accelerator', also: 'salt, terra alba', means: 'What makes a mix set sooner: old set plaster ground fine, salt, warm water. A dirty bucket is one.' },
  'alginate': { term: 'Alginate', also: 'impression, dental', means: 'A soft impression that is safe on skin and gives one cast. It dries and shrinks within hours.' },
  'autoclaved': { term: 'Alpha hemihydrate', also: 'autoclaved, stone', means: 'Powder made under steam: dense grains that want less water and set harder. Stones and gypsum cements.' },
  'bag-school': { term: 'By the bag', also: 'field', means: 'Powder weighed into a strong bag at home, wetted and kneaded where it is poured.' },
  'bat': { term: 'Bat', also: 'slab', means: 'A flat slab of plaster that drinks water out of clay, or carries a pot.' },
  'beta': { term: 'Beta hemihydrate', also: 'plaster of Paris', means: 'Powder made in an open kettle: ragged grains that want much water and set soft and porous.' },
  'bleed': { term: 'Bleed water', also: 'water on top', means: 'Water that rises as powder settles out of a thin mix. The face below stays weak.' },
  'blank': { term: 'Blank face', means: 'A cast face without detail where air or a thick mix kept the plaster from the mould.' },
  'bloom': { term: 'Efflorescence', also: 'bloom, whiskers', means: 'White salts that the drying water carries to the face and leaves there.' },
  'bubble': { term: 'Bubbles', also: 'pinholes, air', means: 'Air stirred or poured in. Small ones stay where the mix is thick; tapping brings large ones up.' },
  'bulk': { term: 'Bulk density', means: 'What a litre of powder weighs as it lies, loose or tapped. Scoops and cups depend on it.' },
  'calcined': { term: 'Calcined', means: 'Gypsum heated until it has lost most of its water: the powder in the bag.' },
  'class': { term: 'Class of powder', means: 'What kind a powder is. Each has its usual ratio, set and strength; a bag of your own makes them truer.' },
  'clay-wall': { term: 'Clay wall', also: 'dam, cottle', means: 'A fence of clay or card round a model or print that holds the plaster until it sets.' },
  'coat': { term: 'Coat', also: 'layer', means: 'One layer of a shell or hollow cast. The next goes on while the one before still has its gloss.' },
  'consistency': { term: 'Consistency', also: 'water to powder, ratio', means: 'Grams of water to 100 grams of powder. Less is harder and thicker, more is softer and thinner.' },
  'crystal': { term: 'Crystals', also: 'needles, gypsum', means: 'What the powder turns into as it takes up water: needles that grow through each other and lock.' },
  'cup-test': { term: 'Cup test', means: 'A small cup of mix, timed until its gloss goes: it tells how fast this bag sets today.' },
  'dead': { term: 'Dead powder', also: 'stale', means: 'Powder that took up damp in its bag. It sets late and soft, or not at all.' },
  'draft': { term: 'Draft', means: 'How far a side leans outward, so that a rigid mould lets go of it.' },
  'dry-weight': { term: 'Bone dry', also: 'constant weight', means: 'When a piece loses no more weight from one day to the next.' },
  'exotherm': { term: 'Warmth of setting', also: 'exotherm, heat', means: 'Setting gives off heat. A thick piece gets hot inside: never pour it round any part of a body.' },
  'expansion': { term: 'Setting expansion', also: 'growth', means: 'A cast grows a little as it sets, a tenth of a per cent for stones, more for soft plaster.' },
  'fat': { term: 'Fat mix', also: 'thick', means: 'A mix with little water: strong, thick, short to pour.' },
  'filler': { term: 'Filler', also: 'sand, silica', means: 'Grains that do not set: sand, silica flour. They cool the cast and make it weaker.' },
  'flash': { term: 'Flash', also: 'fin, seam', means: 'A thin fin of plaster where two parts of a mould did not close.' },
  'gauge': { term: 'Measure a mould', also: 'gauge', means: 'Finding out what it takes: by water, gravel, its measures, or the mix that filled it.' },
  'gloss': { term: 'Gloss goes', also: 'loss of sheen', means: 'The wet shine leaves the face: the mix has set enough to hold its shape, and warms from now on.' },
  'green': { term: 'Green strength', means: 'How much a cast bears while it is still wet: about half of what it bears dry.' },
  'gypsum': { term: 'Gypsum', means: 'The stone plaster is made from, and what it is again once set: calcium sulphate with its water.' },
  'hemihydrate': { term: 'Hemihydrate', also: 'powder', means: 'The powder: gypsum that has lost three quarters of its water and wants it back.' },
  'islands': { term: 'Islands', also: 'saturation, dry peaks', means: 'Powder that stays dry on top of the water. When islands stay for half a minute, the settled powder has the water it needs.' },
  'jacket': { term: 'Jacket', also: 'mother mould, shell', means: 'A stiff shell round a soft mould that keeps its shape.' },
  'keys': { term: 'Keys', also: 'registration', means: 'Dimples and knobs by which two parts of a mould find each other.' },
  'lean': { term: 'Lean mix', also: 'thin', means: 'A mix with much water: runs everywhere, sets soft, dries long.' },
  'lump': { term: 'Lumps', means: 'Powder that went in too fast to be wet through. Soak longer next time, and sift.' },
  'mask': { term: 'Dust mask', also: 'safety, silica', means: 'Worn whenever dry powder moves. Some powders hold silica: look at the data sheet.' },
  'mould-release': { term: 'Release', also: 'soap, grease, parting', means: 'A thin film that keeps plaster off a mould: soap or grease on plaster, none on silicone.' },
  'needle': { term: 'Needle test', also: 'Vicat, initial set, final set', means: 'A weighted needle that is let down on the mix: how far it goes in tells initial and final set.' },
  'overmix': { term: 'Over-stirred', means: 'Stirred so long that it sets in the bucket: each turn breaks needles, and every piece is a new seed.' },
  'parting': { term: 'Parting line', also: 'seam', means: 'Where two parts of a mould meet, and where the cast shows it.' },
  'pigment': { term: 'Pigment', also: 'colour', means: 'Colour in the body of the cast. Dry it drinks water; too much makes it weak.' },
  'plasticiser': { term: 'Plasticiser', also: 'superplasticiser, flow', means: 'A pinch of it lets a mix pour with less water.' },
  'pore': { term: 'Pores', means: 'The holes the spare water leaves. They make a mould drink, and a cast weak.' },
  'pour-by': { term: 'Pour by', also: 'working time', means: 'The last moment at which it still runs into the detail.' },
  'print': { term: 'Print in the ground', also: 'track, footprint', means: 'A mark in soil that is filled once and lifted with its ground.' },
  'retarder': { term: 'Retarder', also: 'citric acid, borax', means: 'A pinch of citric acid, borax or glue that gives minutes, and takes some strength.' },
  'score': { term: 'Score', also: 'key', means: 'Scratch a set face so that the next pour holds on to it.' },
  'seed': { term: 'Seeds', means: 'Specks of set plaster on which crystals begin: a dirty bucket, long stirring. More seeds set sooner.' },
  'sift': { term: 'Sift', also: 'strew, sprinkle', means: 'Let powder fall a little at a time over the whole face of the water, never the water onto it.' },
  'silicone': { term: 'Silicone', means: 'A rubber that nothing sticks to but itself. Holds fine detail and bends round undercuts.' },
  'slake': { term: 'Soak', also: 'slake', means: 'Leave the powder to drink for a minute or three before any stirring: it wets through and lets its air go.' },
  'slip': { term: 'Slip', also: 'slip casting', means: 'Liquid clay. A dry plaster mould drinks its water and leaves a wall of clay.' },
  'spread': { term: 'Spread test', also: 'slump', means: 'A ring of mix lifted from a plate: how far it runs tells its flow, and the water in it.' },
  'stiff': { term: 'Too stiff', means: 'When it no longer levels itself. Poured then, it leaves gaps and layer lines.' },
  'suction': { term: 'Suction', means: 'What holds a cast in a close mould, and what makes a dry plaster mould drink.' },
  'tap': { term: 'Tap', also: 'vibrate, jar', means: 'Knock the table or the mould’s sides so that bubbles come up. Stop when it thickens.' },
  'talc': { term: 'Talc', means: 'Dusted into latex it keeps the mould from sticking to itself, and carries the mix into thin tips.' },
  'undercut': { term: 'Undercut', means: 'A place that is wider inside than its way out: only a mould that bends lets it go.' },
  'vent': { term: 'Vent', means: 'A small hole at a high place through which trapped air leaves.' },
  'waste': { term: 'Waste mould', means: 'A mould that is broken off its one cast.' },
  'webbing': { term: 'Webbing', also: 'creaming', means: 'A finger drawn out of the mix leaves threads: it has begun to thicken, pour now.' },
  'wet-strength': { term: 'Soft skin', means: 'A weak, chalky face: too much water, water added late, or a wet mould.' },
} as const satisfies Record<string, Term>
export type TermId = keyof typeof GLOSSARY_WORDS
export const GLOSSARY: Readonly<Record<TermId, Term>> = GLOSSARY_WORDS

export interface Topic { readonly id: string, readonly title: string, readonly text: string, readonly to?: string }
/** How things are done here, each in a few sentences, with where. */
export const TOPICS: readonly Topic[] = [
  { id: 'first', title: 'My first pour', to: '/new', text: 'Open New pour, say what you fill, how big, how many and which powder. Water and powder stand there at once; “Mix it” takes you to the bench, which tells each step and its time.' },
  { id: 'plan', title: 'Plan with my own moulds', to: '/plan', text: 'A plan is made of moulds, a powder, a ratio and a bucket. All of it can be changed; results move as you type. It is saved by itself.' },
  { id: 'measure', title: 'How much does my mould take?', to: '/moulds', text: 'Fill it with water and weigh it, or measure its sides, or take a model or photo. Several measurements are put together; the most precise counts most.' },
  { id: 'bench', title: 'At the bench', to: '/bench', text: 'The great button is the next step. What you mark (gloss, warmth) moves the forecast. Without a network nothing is lost: it is sent later.' },
  { id: 'wrong', title: 'Something went wrong', to: '/bench', text: 'On the bench, press “Something is wrong” or 0. It knows sixteen troubles and says what to do at this moment of this pour.' },
  { id: 'open', title: 'When and how to open', to: '/shelf', text: 'The Shelf says from when a mould may be opened. “How to open” shows it step by step for that mould, and when to stop.' },
  { id: 'dry', title: 'Is it dry?', to: '/shelf', text: 'Weigh a piece now and then, or feel it; the drying curve is fitted to it, and says when it is dry enough for what you want.' },
  { id: 'bag', title: 'My bag sets differently', to: '/powders', text: 'Make a bag of your own, type what is printed on it and do a cup test. Each pour teaches it more.' },
  { id: 'why', title: 'How is this known?', text: 'A figure with a dotted line opens its ground: the rule, what went in, the source, how sure it is and what would narrow it.' },
  { id: 'model', title: 'How the model works', to: '/lab/model', text: 'The setting model with its formulas, sources and check values.' },
  { id: 'phone', title: 'Use it on a phone', to: '/settings', text: 'Start the server with --share; Workshop then shows an address and a code to scan.' },
  { id: 'keep', title: 'Where is what I poured as a guest?', to: '/keep', text: 'On the device you poured with, until you press “Keep this”. The door offers it again when you come back.' },
  { id: 'away', title: 'The network is gone', text: 'Go on: plans, pours and marks are kept in this browser and sent when it is back. The line at the foot of the page says what waits.' },
  { id: 'file', title: 'Take everything with me', to: '/settings', text: 'Workshop saves all of it as one open file, and brings such a file in again.' },
]
/** Keys that work, and where. */
export const KEYS = [
  { key: '?', does: 'shows these keys', where: 'everywhere' },
  { key: 'Space, Enter', does: 'next: what the great button says; a pedal does the same', where: 'on the bench' },
  { key: 'Backspace', does: 'held: takes the last entry back', where: 'on the bench' },
  { key: 'M', does: 'sound and voice off or on', where: 'on the bench' },
  { key: '0', does: 'something is wrong', where: 'on the bench' },
  { key: '1–9', does: 'the sign beside that number, such as “the gloss goes”', where: 'on the bench' },
  { key: 'Tab', does: 'on to the next thing that can be pressed', where: 'everywhere' },
  { key: 'Esc', does: 'closes what is open', where: 'everywhere' },
  { key: 'Arrows', does: 'move a mark on a photo or sketch; with Shift, further', where: 'on drawings' },
] as const
/** The first plan, in five steps. */
export const TOUR = [
  { on: '#fills-head', title: 'What you fill', text: 'Moulds and how many of each. Everything else follows from it.' },
  { on: '#measures-head', title: 'How you mix', text: 'A scale, cups, or by eye. Powder, water and bucket stand below.' },
  { on: '.batch', title: 'What goes in', text: 'Water, then powder, with the lines they reach in your bucket.' },
  { on: '.curve', title: 'The tape of time', text: 'Each act, how warm it gets, and when it may be too stiff to pour.' },
  { on: '#moments-head', title: 'What to expect', text: 'Each figure opens its ground. Then take it to the bench.' },
] as const
