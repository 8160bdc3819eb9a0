import { describe, expect, it } from 'vitest'
import { US_CUSTOMARY } from '../units/units'
import { powderClass } from './powders'
import { readSaying } from './saying/read-saying'
import { bowlDepth, mixPerWater, ratioVerdict, readingsOf, SAYINGS, trueYield, yieldVerdict } from './sayings'
import { readingName, saidRatioWords, understoodWords, verdictWords } from './saying-words'

const plaster = powderClass('plaster-of-paris'),
  cement = powderClass('gypsum-cement'),
  stone = powderClass('high-strength-gypsum-cement')
const ratio = (id: Parameters<typeof readingsOf>[0], powder = plaster) =>
  readingsOf(id, powder, 'loose').map(r => Math.round(100 * r.ratio.value))
const read = (text: string) => {
  const found = readSaying(text, { powder: plaster })
  return found.code === 'read'
    ? found.readings.map(x => `${readingName(x)} ${Math.round(100 * x.ratio.value)}`).join(', ')
    : saidRatioWords(found, plaster, 0.72)
}

describe('sayings that give a ratio', () => {
  it('by hand: two loose scoops of plaster at 693 g/l to one of water is 72, three is 48, ten pounds to a US gallon 83', () => {
    expect(ratio('two-to-one-volume')).toEqual([72])
    expect(ratio('three-to-one-volume')).toEqual([48])
    expect(ratio('two-to-one-weight')).toEqual([50])
    expect(ratio('ten-pounds-a-gallon')).toEqual([83])
    expect(ratio('one-to-one-eye')).toEqual([144])
    expect(ratio('one-one-one')).toEqual([50, 68])
  })

  it('are right for one powder and wrong for another, in words', () => {
    expect(verdictWords(ratioVerdict(plaster, readingsOf('two-to-one-volume', plaster, 'loose')[0]!.ratio))).toMatch(
      /^(Right|In the middle right) for plaster of Paris/,
    )
    expect(ratioVerdict(stone, readingsOf('two-to-one-volume', stone, 'loose')[0]!.ratio)).toMatchObject({
      fit: 'wrong',
    })
    expect(
      ratioVerdict(
        powderClass('dental-type-2'),
        readingsOf('two-to-one-weight', powderClass('dental-type-2'), 'loose')[0]!.ratio,
      ),
    ).toMatchObject({ fit: 'right' })
  })

  it('a scoop that was measured, or tapped down, moves what was said', () => {
    expect(readingsOf('two-to-one-volume', plaster, 'tapped')[0]!.ratio.value).toBeLessThan(0.55)
    const own = readingsOf('two-to-one-volume', plaster, 'loose', { low: 790, high: 810 })[0]!.ratio
    expect(own.value).toBeCloseTo(0.624, 2)
    expect(own.high / own.low).toBeLessThan(1.2)
  })
})

describe('sayings about how much comes of some water (craft figures: 1.5 to 1.6 times at 70, 1.9 at 42, 2.2 at 31; common practice)', () => {
  it('“it doubles” is a gypsum-cement truth', () => {
    expect(mixPerWater(plaster, 0.7)).toBeCloseTo(1.57, 1)
    expect(mixPerWater(cement, 0.42)).toBeCloseTo(1.9, 1)
    expect(mixPerWater(stone, 0.31)).toBeCloseTo(2.2, 1)
    expect(yieldVerdict('it-doubles', plaster, 1e-3)).toMatchObject({ fit: 'wrong' })
    expect(verdictWords(yieldVerdict('it-doubles', cement, 1e-3))).toContain('it does double')
  })

  it('two thirds of a litre of water, sifted to islands, makes about a litre of plaster', () => {
    expect(yieldVerdict('two-thirds-water', plaster, 1e-3).fit).not.toBe('wrong')
    expect(verdictWords(yieldVerdict('two-thirds-water', stone, 1e-3))).toMatch(/over\.$/)
  })

  it('60 mm of water in a round bowl makes about 77 mm of plaster at 70', () => {
    const water = Math.PI * 0.06 ** 2 * (3 * 0.15 - 0.06) / 3
    expect(bowlDepth(0.15, water)).toBeCloseTo(0.06, 6)
    expect(1000 * bowlDepth(0.15, water * mixPerWater(plaster, 0.7))).toBeCloseTo(77, 0)
    expect(verdictWords(yieldVerdict('depth-is-depth', plaster, 1e-3))).toMatch(/in a round bowl/)
  })

  it('a quart for a square foot of half an inch is a quarter too much of plaster, half too much of cement', () => {
    expect(Number(verdictWords(yieldVerdict('quart-a-square-foot', plaster, 1e-3)).match(/(\d+) % over/)![1])).toBeCloseTo(
      25,
      -1,
    )
    expect(Number(verdictWords(yieldVerdict('quart-a-square-foot', cement, 1e-3)).match(/(\d+) % over/)![1])).toBeCloseTo(
      52,
      -1,
    )
  })

  it('a third of the bucket in water is safe for every powder, and the range of the yield holds its centre', () => {
    for (const powder of [plaster, cement, stone]) {
      expect(yieldVerdict('third-of-bucket', powder, 1e-2).fit).toBe('right')
      const y = trueYield(powder, readingsOf('it-doubles', powder, 'loose')[0]!.ratio)
      expect(y.low < y.value && y.value < y.high).toBe(true)
    }
    for (const s of SAYINGS) expect(verdictWords(yieldVerdict(s.id, plaster, 1e-3)).length).toBeGreaterThan(30)
  })
})

describe('reading what is typed', () => {
  it.each([
    ['2:1', 'by volume 72, by weight 50'],
    ['two to one by weight', 'by weight 50'],
    ['three scoops to one', 'by volume 48'],
    ['3 to 1 by volume', 'by volume 48'],
    ['10 lb to a gallon', 'with a US measure 83, with an imperial measure 100'],
    ['ten pounds of powder to a US gallon of water', 'with a US measure 83'],
    ['70 water to 100 powder', 'by weight 70'],
    ['2 lb 12 oz to a US quart', 'with a US measure 76'],
    ['3#/US qt', 'with a US measure 69'],
    ['1½ cups to 1', 'by volume 96'],
    ['2:1 plaster to water', 'by volume 72, by weight 50'],
    ['1:2 water to plaster', 'by volume 72, by weight 50'],
    ['3 to 1 ratio of plaster to water by volume', 'by volume 48'],
    ['70:100 water to plaster', 'by weight 70'],
    ['2 to 1 plaster', 'by volume 72, by weight 50'],
    ['1 kg to 700 ml plaster to water', 'by weight 70'],
    ['quart to 2 3/4 pounds', 'with a US measure 76, with an imperial measure 91'],
    ['half as much water', 'by volume 72, by weight 50'],
    ['half its weight in water', 'by weight 50'],
    ['2-1 by weight', 'by weight 50'],
    ['700 g water to 1 kg plaster', 'by weight 70'],
    ['2 cups powder to 1 cup water', 'by volume 72'],
    ['1,5 kg / 1 l', 'by weight 67'],
  ])('%s is %s', (text, expected) => {
    expect(read(text)).toBe(expected)
  })
  it.each([
    ['', 'Type a ratio'],
    ['plenty', 'Type two amounts'],
    ['1:2:3', 'more than two amounts'],
    ['2-3 to 1', 'more than one ratio'],
    ['2 scoops', 'How much of the other'],
    ['1e3:1', 'Type two amounts'],
    ['2 to -1', 'Type two amounts'],
    ['1:1:1', 'Choose plaster and silica'],
    ['100 to 1', 'No plaster is mixed like that'],
    ['0 to 1', 'Both amounts must be more than zero'],
    ['10 lb to 1', 'Powder with a unit needs'],
    ['2 to 1 quart', 'Water with a unit needs'],
  ])('“%s” is refused in words: %s …', (text, words) => {
    expect(read(text)).toContain(words)
  })
  it('every saying on a button can be typed, and one that says when to stop is answered', () => {
    for (const { words, short, about } of SAYINGS) for (const text of [words, short]) {
      const { code } = readSaying(text, { powder: powderClass('plaster-silica') })
      expect(code, text).toBe(about === 'yield' ? 'saying' : 'read')
    }
    expect(read('Sift until islands stay')).toMatch(/^Sifting to islands gives about 72 with plaster of Paris/)
    for (const felt of ['by feel', 'until it runs', 'like double cream', 'till it pours'])
      expect(readSaying(felt, { powder: plaster })).toEqual({ code: 'school', school: 'powder-first' })
    expect(read('until it runs')).toMatch(/^That is mixing by feel/)
    // Two thirds of the mould, and no ratio; other parts of it say nothing.
    expect(readSaying('2/3 water', { powder: plaster })).toEqual({ code: 'saying', id: 'two-thirds-water' })
    expect(readSaying('3/4 water', { powder: plaster }).code).toBe('not-two-amounts')
    expect(read('It doubles')).toMatch(/how much mix comes of the water/)
  })
  it('says what it understood, and what it would be in fluid ounces', () => {
    const found = readSaying('8 oz water to 12 oz plaster', { powder: plaster, writing: { prefs: US_CUSTOMARY, region: 'us' } })
    expect(found.code === 'read' && understoodWords(found))
      .toBe('67 water to 100 powder; if the water was in fluid ounces 69')
    const volume = readSaying('3:1', { powder: plaster })
    expect(volume.code === 'read' && understoodWords(volume)).toBe('48 water to 100 powder, by volume')
    // Where both come to the same nobody is asked, and it is said that both do.
    const alike = readSaying('2:1', { powder: cement })
    expect(alike.code === 'read' && understoodWords(alike)).toBe('50 water to 100 powder, by volume or by weight alike')
  })
})
