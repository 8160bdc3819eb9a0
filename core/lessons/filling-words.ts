import { gapFilled, leavesByItself, momentsWith } from './facts'
import { asks, round, worksOut } from './how-much-words'
import type { Template } from './types'

/** Questions about filling moulds, and about what happens in them. */

const f = asks('filling'), fn = worksOut('filling'), s = asks('setting'), sn = worksOut('setting')

export const FILLING: readonly Template[] = [
  f('where-pour', 'CP', 'Where do you pour?',
    ['Low, slowly, at one point', 'It runs ahead of the air and pushes it out.'],
    ['From high up', 'Air falls in with it.'],
    ['At many points', 'It meets itself and shuts air in.'],
    ['Fast', 'The same.']),
  f('hooks', 'FP', 'Fingers hook upwards in the mould.',
    ['A little first, tilt, tap, then the rest', 'Air gets a way out while there is one.'],
    ['Fill, and tap for long', 'Air has no way up.'],
    ['A thinner mix', 'Weaker, and the air is still shut in.'],
    ['Poke it with a wire', 'Marks.']),
  fn('gap', 'FP', (draw) => {
    const tau = draw('tau', 20, 60, 10), length = draw('length', 15, 40, 5), head = draw('head', 30, 90, 10)
    const gap = 1000 * gapFilled(tau, length / 1000, head / 1000)
    return {
      asks: `A mix with a yield stress of ${tau} Pa, a slot ${length} mm long, ${head} mm of mix above it. The narrowest slot it fills?`,
      right: [`${round(gap)} mm`, 'Two times stress times length, over weight: 2τL/(ρgH).', gap],
      wrong: [
        [`${round(gap / 2)} mm`, 'Only when shaken.', gap / 2], ['Any, in time', 'Under its yield stress it stands still.'],
        [`${round(gap * 2)} mm`, 'It does better than that.', gap * 2],
      ],
    }
  }),
  fn('rises-alone', 'M', () => {
    const d = leavesByItself('high-strength-gypsum-cement', 0.31)
    return {
      asks: 'A dense stone at 31, left alone. Which bubbles rise out of it?',
      right: [`Only those over ${round(d, 0)} mm: none that was stirred in`, 'Its yield stress holds the small ones: shake it.'],
      wrong: [['All, in time', 'They stand still.'], ['All that you can see', 'This mix holds them.'], ['The small ones first', 'The small ones are held best.']],
    }
  }),
  f('row-order', 'CP', 'The last mould of a row gets the stiffest mix. Which goes last?',
    ['The plainest', 'It needs the least flow.'],
    ['The finest', 'Its tips stay empty.'],
    ['The largest', 'It needs the most flow.'],
    ['No matter', 'It does.']),
  f('joint', 'M', 'The first half has lost its gloss; the second comes now.',
    ['A joint: roughen it, wet it, a thin coat first', 'They no longer grow together.'],
    ['Pour on: they grow together', 'Only before the gloss goes.'],
    ['Wait until it is dry', 'Then it drinks the second half dry.'],
    ['Grease it', 'Then it certainly parts.']),
  f('drips', 'CP', 'It drips from the seam.',
    ['Clay on it at once, then top up', 'What runs out is missing on top.'],
    ['It stops by itself', 'Once it webs, and then you are short.'],
    ['Tighten the halves hard', 'It bends them.'],
    ['Pour faster', 'It runs out faster.']),
  f('first-coat', 'CP', 'Why brush a first coat on?',
    ['It wets the face: no air clings to it', 'And fine parts are full before the rest comes.'],
    ['For strength', 'No.'],
    ['It holds the cast in', 'No.'],
    ['It saves powder', 'A spoonful.']),
  f('tap-how-long', 'M', 'How long is tapping worth it?',
    ['While it flows; from webbing on, leave it alone', 'What no longer flows only cracks.'],
    ['Until it is set', 'Each knock makes a crack.'],
    ['Three knocks', 'Small bubbles take a minute.'],
    ['Not at all', 'They stay at the face.']),
  f('release-pair', 'CP', 'Plaster onto plaster: what goes between?',
    ['Soap or grease, on every face that meets, twice', 'Plaster grows into plaster.'],
    ['Nothing: it parts by itself', 'It becomes one block.'],
    ['Water', 'It wets, and joins.'],
    ['Talc', 'It takes what is fine with it.']),
  f('undercut', 'FP', 'A rigid mould is narrower at its mouth than inside.',
    ['It will not come out: more parts, or a flexible mould', 'Nothing that is rigid goes through a narrower hole.'],
    ['Pull harder', 'One of the two breaks.'],
    ['More release', 'It does not widen the mouth.'],
    ['Open it wet', 'Wet is no smaller.']),
  f('keys', 'CP', 'What are keys for, in a mould of two halves?',
    ['The halves find one place, and only one', 'Without them the seam steps.'],
    ['They hold the halves shut', 'Bands do.'],
    ['They let air out', 'Vents do.'],
    ['They mark the front', 'They may, too.']),
  f('swill', 'M', 'A sleeve is swilled. What stays on its wall?',
    ['As much as its stiffness holds: millimetres once it films', 'Fresh, it runs off to half a millimetre.'],
    ['Always the same', 'It depends on when.'],
    ['More the thinner it is', 'The other way.'],
    ['Nothing', 'A film at least.']),
  f('late-row', 'CP', 'There is mix left and it films; two moulds are empty.',
    ['Fill the plain one, and let the other go', 'One good piece is more than two bad ones.'],
    ['Half of each', 'Two bad ones.'],
    ['Thin it', 'Weak.'],
    ['Stir it soft again', 'It sets the sooner.']),
]

export const SETTING: readonly Template[] = [
  s('warm-now', 'M', 'It is hard as glass, and warm to the hand. Open it?',
    ['Not yet: past its warmest, and cooler', 'Warm means that it is still at it.'],
    ['Yes: warm means done', 'It is half of its strength.'],
    ['When the gloss goes', 'Then it is like cheese.'],
    ['It never gets warm', 'It does.']),
  sn('plate-block', 'M', (_, degrees) => {
    const warmest = (section: number) => momentsWith({ section }).warmestTemperature
    const plate = warmest(0.008), block = warmest(0.06)
    return {
      asks: 'The same mix as a plate of 8 mm and as a block of 60. Which gets warmest?',
      right: [`The block: about ${degrees(block)}`, `The plate gives its heat away and gets to about ${degrees(plate)}.`],
      wrong: [['The plate', 'It loses heat at once.'], ['Both the same', 'The same heat a gram; not the same loss.'], ['Neither warms', 'Both do.']],
    }
  }),
  s('cold', 'CP', '“Cold to the touch.” What does it mean?',
    ['Two things: cool after its warmth, so set; or cold and damp, so not dry', 'Ask which.'],
    ['It is set', 'Maybe only that.'],
    ['It is wet', 'Maybe only that.'],
    ['It has failed', 'Only if it never got warm.']),
  sn('cold-ground', 'M', (draw, degrees) => {
    const t = draw('t', 3, 8, 1), usual = momentsWith().finalSet / 60
    const cold = momentsWith({ roomTemperature: t, waterTemperature: t, ground: t, mould: 'ground', section: 0.02 }).finalSet / 60
    return {
      asks: `A print at ${degrees(t)}. Indoors it is firm after ${round(usual, 0)} minutes. And here?`,
      right: [`After about ${round(cold, 0)}`, 'The mix, the air and the ground are cold. Give it far longer still before it is lifted.', cold],
      wrong: [
        [`After ${round(usual, 0)}, as indoors`, 'Cold is slow.', usual], ['Never', 'Above freezing it sets.'],
        ['Sooner: cold hardens', 'That is ice, and spoils it.', usual * 0.6],
      ],
    }
  }),
  s('frost-set', 'M', 'It froze before it had set.',
    ['It is spoilt: ice broke what was growing', 'When it thaws it crumbles.'],
    ['It sets when it thaws', 'Weak, and crumbling.'],
    ['It is harder', 'As ice is.'],
    ['Nothing happens', 'It does.']),
  s('gloss', 'M', 'The gloss goes from its face. What does it tell?',
    ['Pouring and tapping are over; it can be scraped soon', 'Needles span it now.'],
    ['It is ready to open', 'Far from it.'],
    ['It dries', 'It sets.'],
    ['It has failed', 'No.']),
  s('thin-parts', 'CP', 'A piece with thin parts: when is it opened?',
    ['Later than a block: well past its warmest', 'Thin parts need nearly all of its strength.'],
    ['Sooner: it is thin', 'Thin breaks first.'],
    ['At the gloss', 'Like cheese.'],
    ['It does not matter', 'It snaps.']),
  s('resists', 'CP', 'It will not come out.',
    ['Wait ten minutes, and try again all round', 'It shrinks from nothing, but it dries and gets stronger.'],
    ['Pull on one corner', 'It breaks there.'],
    ['Hit it', 'So it does.'],
    ['Boil it', 'No.']),
  s('nail', 'CP', 'In the cold its face still takes a nail after an hour.',
    ['Cover it, warm the room, wait', 'Cold is slow, and patience is free.'],
    ['Into the oven', 'It crumbles.'],
    ['Dry powder on it', 'A crust that comes off.'],
    ['Water it', 'It has enough.']),
  s('range', 'M', 'The forecast says “18 to 27 minutes”. How often is it outside?',
    ['About two times in ten', 'Each end is one in ten. Bags differ.'],
    ['Never', 'Then it would be far wider.'],
    ['Half of the time', 'It would be no use.'],
    ['Only if you err', 'Bags differ.']),
  s('grows', 'FP', 'Does a cast grow or shrink as it sets?',
    ['It grows a little: a quarter of a percent or so', 'Needles push each other apart.'],
    ['It shrinks', 'Its water and powder do; its needles hold it apart.'],
    ['Neither', 'Enough to lock into a ring.'],
    ['It doubles', 'No.']),
]
