import { asks, round, worksOut } from './how-much-words'
import { momentsWith, speedAt, stirredFor, timeAt } from './facts'
import type { Template } from './types'

/** Questions about powder and water coming together, and about stirring. */

const w = asks('wetting'), wn = worksOut('wetting'), s = asks('stirring'), sn = worksOut('stirring')

export const WETTING: readonly Template[] = [
  w('water-first', 'CP', 'Water first or powder first, in a bucket?',
    ['Water, and powder onto it', 'Each grain sinks and lets its air out.'],
    ['Powder first', 'It cakes on the bottom and stays dry there.'],
    ['Both at once from the tap', 'No ratio, and lumps.'],
    ['It does not matter', 'Only for a bag, where kneading reaches everything.']),
  w('clear-two-thirds', 'M', 'From above: clear water over two thirds, islands vanish in ten seconds.',
    ['More powder to come', 'Islands that sink say the water is not filled yet.'],
    ['That is enough', 'It would be thin and weak.'],
    ['Too much already', 'Then something would stay dry.'],
    ['Stir now', 'Thin, and weak.']),
  w('islands-stay', 'M', 'Islands stay; their edges are wet.',
    ['Stop, and let it soak', 'The water is taken up.'],
    ['Go on until all is dry', 'Too thick, and dry powder clumps.'],
    ['Lift some off', 'That is for a crust.'],
    ['Stir at once', 'The islands have not drunk.']),
  w('crust-all', 'M', 'A dry crust with cracks, all over.',
    ['Lift the dry off', 'What cannot drink becomes lumps.'],
    ['Stir it in', 'Each crumb becomes a lump.'],
    ['Add water on top', 'It runs through the cracks; the rest stays dry.'],
    ['Leave it ten minutes', 'Beneath, it begins to set.']),
  w('one-heap', 'M', 'One heap in the middle, clear water at the rim.',
    ['Go on round the rim', 'There is water there that has no powder yet.'],
    ['Enough', 'The rim is still water.'],
    ['Push the heap under', 'Lumps.'],
    ['Stir', 'The heart of the heap is dry.']),
  w('tipped', 'M', 'A kilo tipped in at once instead of strewn. What happens to lumps?',
    ['Many times more, and larger ones', 'Water closes round a heap before it gets in.'],
    ['The same after soaking', 'A lump of 12 mm needs a quarter of an hour.'],
    ['Fewer: it wets together', 'Only fine mixed powders, with a long soak.'],
    ['None if stirred hard', 'Air instead.']),
  w('why-soak', 'M', 'Why soak it?',
    ['Small lumps drink through by themselves, so you stir less', 'And what is stirred less keeps its time.'],
    ['It makes it stronger', 'Only by fewer lumps.'],
    ['To cool it', 'Powder and water are as warm as they were.'],
    ['To start the set', 'It starts when it is wet; stirring hurries it.']),
  w('twice-lump', 'P', 'A lump twice as thick: how long until it is wet through?',
    ['Four times as long', 'Time goes with the square of the way (Washburn 1921, from memory).', 4],
    ['Twice', 'Water slows down on its way in.', 2],
    ['The same', 'It has further to go.', 1],
    ['Never', 'Only where there is no water.']),
  wn('hot-water', 'M', (draw, degrees) => {
    const t = draw('t', 50, 60, 5), speed = speedAt(t)
    return {
      asks: `Water of ${degrees(t)} instead of ${degrees(20)}. What comes of it?`,
      right: ['More lumps, and hardly a quicker set', `It would set at ${round(speed, 1)} times the speed; it is quickest near ${degrees(36)}.`],
      wrong: [['Twice as quick', `Beyond ${degrees(36)} it slows down again.`], ['Fewer lumps, as with sugar', 'Powder clots in hot water.'], ['Stronger', 'No.']],
    }
  }),
  wn('gain-time', 'M', (draw, degrees) => {
    const t = draw('t', 6, 12, 2), gain = 100 * (timeAt(t) - 1)
    return {
      asks: `Water of ${degrees(t)} instead of ${degrees(20)}. How much more time to pour?`,
      right: [`About ${Math.round(gain / 5) * 5} % more`, 'Cold slows the reaction; it costs no strength.', gain],
      wrong: [
        ['None', 'Then nobody would take cold water.', 0], ['Three times as much', 'Not so much: it warms up as it sets.', 200],
        ['Less: it shrinks', 'No.', -20],
      ],
    }
  }),
  w('more-time-best', 'M', 'You want a good deal more time to pour. What is best?',
    ['Colder water', 'More time, the same strength.'],
    ['A thinner mix', 'Weaker, for little time.'],
    ['A longer soak', 'That costs a little time.'],
    ['Stir less than smooth', 'Lumps.']),
  w('handfuls', 'CP', 'How large is a handful, and how quickly do they follow?',
    ['Small, over the whole surface, the next where there is clear water', 'A surface takes about a kilo a minute in a bucket.'],
    ['Large, in the middle', 'A heap.'],
    ['All at once, then wait', 'Only investment, with a long soak.'],
    ['A spoon a minute', 'Then the first sets before the last is in.']),
  w('investment-dump', 'CP', 'Plaster with silica for a shell is dumped in at once. Why is that right?',
    ['Its coarse part lets air out, and the long soak does the rest', 'It hardly clots; three minutes are part of the recipe.'],
    ['It is not', 'It is the custom, and the model agrees.'],
    ['To keep dust down', 'It dusts all the more: mask on.'],
    ['It sets faster so', 'No.']),
  w('found-water', 'CP', 'Out in the field there is only water from a ditch.',
    ['Use it if it is clear, and try a cup first', 'Salt, humus and cold all move the set.'],
    ['Never use it', 'Often there is no other.'],
    ['Boil it there', 'Hot water clots.'],
    ['Add salt to be safe', 'Salt makes it quick, damp and blooming.']),
]

export const STIRRING: readonly Template[] = [
  sn('stirred-long', 'M', (draw) => {
    const minutes = draw('minutes', 4, 6, 1), usual = stirredFor(2), long = stirredFor(minutes)
    return {
      asks: `Stirred for ${minutes} minutes instead of 2: with 2 it loses its gloss after ${round(usual, 0)} minutes. When now?`,
      right: [`After about ${round(long, 0)}`, 'Each turn breaks needles, and each piece grows on.', long],
      wrong: [
        [`After about ${round(usual + minutes, 0)}`, 'It gets sooner, not later.', usual + minutes],
        ['It never sets', 'A saying: over-stirred it sets early and weak.'], ['Just the same', 'Stirring makes seeds.', usual],
      ],
    }
  }),
  s('where-stir', 'M', 'Where do you stir?',
    ['Under the surface, feeling walls and floor', 'Lumps sit in the corner; air is above.'],
    ['Lift and fold', 'Air.'],
    ['In the middle', 'Lumps sit in the corner.'],
    ['Fast on top', 'Foam.']),
  s('most-air', 'M', 'Which tool draws in most air in the same minute?',
    ['A whisk', 'Its wires carry air down.'],
    ['A hand', 'The least of the tools without vacuum.'],
    ['A spatula', 'About as a hand.'],
    ['A vacuum mixer', 'Next to none.']),
  s('when-stop', 'CP', 'When do you stop stirring?',
    ['No lump in a handful, and it coats the glove evenly', 'The mix says it.'],
    ['When it is warm', 'Then it has set.'],
    ['After five minutes', 'Clocks know neither bag nor water.'],
    ['When it will not drip', 'Too late to pour.']),
  sn('dirt', 'M', (draw) => {
    const dirt = draw('dirt', 1, 2, 0.5) / 100
    const left = 100 * momentsWith({ dirt }).pourBy / momentsWith().pourBy
    return {
      asks: `Old plaster left in the bucket, ${round(100 * dirt, 1)} % of the powder. What is left of the time to pour?`,
      right: [`About ${Math.round(left)} %`, 'Set crumbs are seeds: gypsum grows on them at once.', left],
      wrong: [
        ['All of it', 'Crumbs are seeds.', 100], ['More: they drink a little', 'They seed far more.', 125],
        [`About ${Math.round(left + (100 - left) * 0.6)} %`, 'Worse than that.', left + (100 - left) * 0.6],
      ],
    }
  }),
  sn('salt', 'M', () => {
    const part = 100 * momentsWith({ additions: [{ id: 'salt', share: 0.02 }] }).glossGone / momentsWith().glossGone
    return {
      asks: 'Two in a hundred of salt got in. What happens?',
      right: [`It sets in about ${Math.round(part / 5) * 5} % of the time, stays damp and blooms`, 'Salt hurries it, and draws water ever after.'],
      wrong: [['It sets slower, as on ice', 'Ice is another matter.'], ['Nothing', 'Two in a hundred is a lot.'], ['It is harder for good', 'It is not.']],
    }
  }),
  s('thickens-early', 'M', 'It thickens minutes before the plan says. What now?',
    ['Go on at once: pour, the finest first', 'The mix is the clock.'],
    ['Follow the plan’s clock', 'The mix does not.'],
    ['Add water', 'Weak.'],
    ['Stir harder', 'It sets sooner still.']),
  s('water-late', 'CP', 'It got too stiff to pour. May water save it?',
    ['No: stop, and clean up', 'What has begun to grow is broken, and the rest is drowned.'],
    ['A little, stirred well', 'Weak, and it bleeds.'],
    ['Warm water', 'It sets faster.'],
    ['Yes, with more powder', 'Two ages in one bucket.']),
  s('bag-knead', 'CP', 'A mix is kneaded in its bag. When is it done?',
    ['No white is felt, in the corners neither', 'Two to three minutes; press the air out first.'],
    ['After half a minute', 'White lumps sit in the folds.'],
    ['When it is warm', 'Too late.'],
    ['When the bag is full', 'That says nothing.']),
  s('drill', 'M', 'A drill is quick. What does it cost?',
    ['Time to pour: it makes seeds twice as fast as a hand', 'A minute may be all it needs.'],
    ['Strength, always', 'Only when it goes on into the set.'],
    ['Nothing', 'Seeds.'],
    ['Colour', 'No.']),
  s('film', 'CP', 'A film stays between spread fingers. What does it tell?',
    ['It webs: pour now, or swill it on', 'It still runs under its own weight, not for long.'],
    ['It is too thin', 'Thin mix does not film.'],
    ['It is set', 'Then it is matt.'],
    ['There is soap in it', 'No.']),
  s('colour-when', 'CP', 'When does dry colour go in?',
    ['Into the water, or into the dry powder, before they meet', 'Later it streaks.'],
    ['When it thickens', 'Streaks, and a weak mix.'],
    ['On top before pouring', 'Marbling, if that is wanted.'],
    ['After it is dry', 'That is paint.']),
]
