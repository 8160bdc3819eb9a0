import { dryAt, forLitres, riseOf } from './facts'
import type { LessonId, Part, SourceTag, Template } from './types'

/** Questions about the powder itself, and about how much of it: their words, with numbers from facts.ts. */

export const asks = (lesson: LessonId) => (
  id: string, tag: SourceTag, words: string, right: Part, ...wrong: readonly Part[]
): Template => ({ id, lesson, tag, ask: () => ({ asks: words, right, wrong }) })
export const worksOut = (lesson: LessonId) => (
  id: string, tag: SourceTag, ask: Template['ask'],
): Template => ({ id, lesson, tag, ask })
export const round = (x: number, places = 2): string => x.toFixed(places)

const p = asks('powder'), much = asks('how-much'), n = worksOut('how-much')

export const POWDER: readonly Template[] = [
  p('what-it-is', 'FP', 'What is plaster of Paris?',
    ['Gypsum with three quarters of its water driven off by heat', 'With water it turns back into gypsum, and that is setting.'],
    ['Ground limestone', 'Lime and limestone set with air, not with water.'],
    ['Chalk and glue', 'Glue dries; plaster sets, under water too.'],
    ['Cement without sand', 'Cement is another mineral, and takes days.']),
  p('why-it-sets', 'FP', 'Why does plaster set?',
    ['It binds water and grows into needles of gypsum', 'The needles lock together; that is why it sets under water, too.'],
    ['Its water dries off', 'It is hard while it is still soaking wet.'],
    ['It cools down', 'It warms up as it sets.'],
    ['Air hardens it', 'It sets in a closed bag.']),
  p('where-from', 'CP', 'Where does the powder come from?',
    ['Gypsum rock, dug or won from flue gas, then heated and ground', 'Both are the same mineral.'],
    ['Burnt limestone', 'That gives lime.'],
    ['Volcanic ash', 'That goes into some cements.'],
    ['Sea shells', 'They are chalk.']),
  p('old-use', 'CP', 'What has it been used for longest?',
    ['Walls: plaster on a wall is thousands of years old', 'Casts and moulds came after it.'],
    ['Dental casts', 'Those are young.'],
    ['Pottery moulds', 'A few hundred years.'],
    ['Blackboard chalk', 'Chalk sticks of gypsum are young, too.']),
  p('alpha-beta', 'M', 'Why does a dental stone need so little water?',
    ['Its grains are dense and smooth, so less water makes them flow', 'Plaster of Paris has spongy grains.'],
    ['It is ground finer', 'Finer would want more.'],
    ['It is another mineral', 'It is the same one, made under steam.'],
    ['It is mixed with resin', 'Some are; it is the grain that counts.']),
  p('names', 'CP', 'Two bags say “plaster”. What tells you how much water?',
    ['The data sheet, or the class of the powder', 'The word alone says nothing about the ratio.'],
    ['The colour', 'Dyes say nothing.'],
    ['The price', 'It does not know.'],
    ['All take the same', 'From three parts to seven of water in ten of powder.']),
  p('keeps', 'CP', 'An open bag stood in the cellar all winter. What has changed?',
    ['It drank damp: caked, and its set has moved', 'Sieve it, try a cup of it, and trust no clock.'],
    ['Nothing: it is stone', 'It lives on water, damp air included.'],
    ['It is stronger', 'What has set already adds nothing.'],
    ['It needs less water', 'What caked is no longer plaster.']),
  p('heat', 'FP', 'Where does the warmth of a setting cast come from?',
    ['From binding water: heat of hydration', 'The thicker the cast, the less of it leaves, the hotter it gets.'],
    ['From stirring', 'A drill adds next to nothing.'],
    ['From the room', 'It gets warmer than the room.'],
    ['From friction of the needles', 'That is heat nobody has measured.']),
  p('again', 'CP', 'Can set plaster be ground and used again?',
    ['Not by grinding: it would have to be heated, evenly, to the right degree', 'What is ground seeds the next mix and makes it set in your hands.'],
    ['Yes, with water', 'It has its water already.'],
    ['Yes, half and half', 'Half of it is seeds.'],
    ['Only if it was white', 'Colour has nothing to do with it.']),
]

export const HOW_MUCH: readonly Template[] = [
  n('water-for-mould', 'FP', (draw) => {
    const litres = draw('litres', 0.4, 6, 0.2), ratio = draw('ratio', 65, 75, 5) / 100
    const { water } = forLitres('plaster-of-paris', ratio, litres)
    return {
      asks: `A mould holds ${round(litres, 1)} l. Plaster of Paris at ${Math.round(100 * ratio)}. How much water?`,
      right: [`${round(water)} kg`, 'Water and grains fill the mould together, less a little air.', water],
      wrong: [
        [`${round(litres * 0.5)} kg`, 'Half is a saying that fits gypsum cement; a fifth would be missing here.', litres * 0.5],
        [`${round(litres)} kg`, 'The powder takes room too: half as much again would be left over.', litres],
        [`${round(litres * 0.85)} kg`, 'Too much: a fifth of the mix would be left in the bucket.', litres * 0.85],
      ],
    }
  }),
  n('powder-for-water', 'FP', (draw) => {
    const water = draw('water', 0.5, 3, 0.1), right = water / 0.42
    return {
      asks: `${round(water, 1)} kg of water in the bucket, gypsum cement at 42. How much powder?`,
      right: [`${round(right, 1)} kg`, 'Water over ratio.', right],
      wrong: [
        [`${round(water * 0.42, 1)} kg`, 'The ratio was turned round.', water * 0.42],
        [`${round(water / 0.7, 1)} kg`, 'That is plaster of Paris.', water / 0.7],
        [`${round(water, 1)} kg`, 'Far too thin for this powder: it would be weak.', water],
      ],
    }
  }),
  n('rise', 'M', (draw) => {
    const depth = draw('depth', 40, 80, 5), rise = riseOf('plaster-of-paris'), right = depth * rise
    return {
      asks: `Water stands ${depth} mm deep in a straight pan. You sift plaster of Paris until islands stay. How deep is the mix?`,
      right: [`${Math.round(right)} mm`, 'The grains add their own volume: about half as much again.', right],
      wrong: [
        [`${depth} mm`, 'Powder fills gaps, but its grains take room.', depth],
        [`${2 * depth} mm`, 'Doubling is nearer the truth of gypsum cement.', 2 * depth],
        [`${Math.round(0.8 * depth)} mm`, 'Nothing leaves the pan.', 0.8 * depth],
      ],
    }
  }),
  much('most-volume', 'FP', 'Which mix gives most from one litre of water?',
    ['High-strength gypsum cement at 31', 'It takes the most powder for its water, and powder takes room.'],
    ['Plaster of Paris at 70', 'Most water for the least powder.'],
    ['All the same', 'The grains add their volume.'],
    ['The one stirred longest', 'Air apart, stirring adds nothing.']),
  n('thinner', 'M', (draw) => {
    const ratio = draw('ratio', 60, 75, 5) / 100, more = ratio + 0.1
    const left = 100 * dryAt('plaster-of-paris', more) / dryAt('plaster-of-paris', ratio)
    return {
      asks: `Water at ${Math.round(100 * more)} instead of ${Math.round(100 * ratio)}. What is left of its dry strength?`,
      right: [`About ${Math.round(left)} %`, 'Each drop too much leaves a hole when it dries.', left],
      wrong: [
        ['All of it', 'The water goes, its room stays.', 100],
        [`About ${Math.round(left * 0.6)} %`, 'Not so bad as that.', left * 0.6],
        ['More: it wets better', 'Powder wets as well at the usual ratio.', 115],
      ],
    }
  }),
  much('overflow', 'CP', 'Twelve small moulds are to be filled. What else stands ready?',
    ['An overflow mould for what is left', 'Nothing sets in the bucket, and nothing is thrown away.'],
    ['A second bag, open', 'Open powder drinks damp.'],
    ['Water to thin the rest', 'Thinned late it is weak and soft.'],
    ['Nothing', 'What is left sets in the bucket and spoils the next mix.']),
  much('spare', 'CP', 'You fear to run short. What is best?',
    ['A spare of six to ten in a hundred, planned from the start', 'It sets with the rest, and fills the overflow mould.'],
    ['Add water at the end', 'Weak, and it bleeds.'],
    ['Mix more when the first is set', 'A joint that comes apart.'],
    ['Double it', 'Half is thrown away.']),
  much('scoop', 'FP', 'A scoop of powder to a scoop of water: what is wrong with writing “1:1”?',
    ['Scoops are volume; ratios go by weight', 'A scoop of powder weighs about seven tenths of one of water.'],
    ['Nothing', 'It is off by a third.'],
    ['It should be 1:2', 'That may be what you want, still by volume.'],
    ['Powder has no volume', 'It has, and it changes with each knock.']),
  much('scale-off', 'CP', 'The scale switches itself off while you pour powder. What now?',
    ['Weigh what is left in the bag, and take it from what was there', 'What was put in is the difference.'],
    ['Start the tare anew and go on', 'Then what is in the bucket is counted as nothing.'],
    ['Go on by feel', 'Feel is out by a tenth or two.'],
    ['Throw it away', 'It is still known.']),
  much('jug', 'CP', 'Where do you read a measuring jug?',
    ['At the flat of the water, the eye level with it', 'The rim of water climbs the wall by a few millimetres.'],
    ['At the top edge of the water on the wall', 'That is the climbing rim.'],
    ['From above', 'It reads too low or too high with the eye.'],
    ['Full to the spout', 'No jug is marked there.']),
  much('kit-bag-size', 'CP', 'A kit in a bag: how much goes into a bag of one litre?',
    ['A quarter to a third of a litre of mix', 'It must be kneaded without coming out.'],
    ['As much as fits', 'The seam gives way.'],
    ['Half powder, half air', 'Air is pressed out first.'],
    ['A spoonful', 'Then a child has nothing to pour.']),
  much('by-eye-how', 'M', 'Without a scale: what measures the powder?',
    ['The water: sift until islands stay', 'What it takes is close to the powder’s own ratio.'],
    ['A clock', 'It does not weigh.'],
    ['The colour of the mix', 'It is white at any ratio.'],
    ['How hard it is to stir', 'By then it may be too late.']),
]
