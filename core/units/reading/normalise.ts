import { unitAt } from './unit-names'

/** What people type, with one way of writing each thing. */

const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2', '⅓': '1/3', '⅔': '2/3', '¼': '1/4', '¾': '3/4', '⅕': '1/5', '⅖': '2/5', '⅗': '3/5', '⅘': '4/5', '⅙': '1/6',
  '⅚': '5/6', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8',
}
const VULGARS = new RegExp(`([${Object.keys(VULGAR).join('')}])(\\d?)`, 'g')

/** Number words, as far as anybody writes an amount in them. */
const WORDS: Readonly<Record<string, number>> = {
  one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12,
  thirteen: 13, fourteen: 14, fifteen: 15, sixteen: 16, seventeen: 17, eighteen: 18, nineteen: 19, twenty: 20,
  thirty: 30, forty: 40, fifty: 50, sixty: 60, seventy: 70, eighty: 80, ninety: 90,
}
const NUMBER_WORD = new RegExp(`\\b(${Object.keys(WORDS).join('|')})\\b`, 'g')
const PARTS: Readonly<Record<string, string>> = { half: '1/2', quarter: '1/4', third: '1/3' }

/** `two hundred and fifty` is 250, `12 hundred` is 1200, `a thousand` is 1000. */
function counted(text: string): string {
  const large = (word: string, size: number, most: number) => (said: string) => said.replace(
    new RegExp(`(?:\\b(\\d+|an?) )?\\b${word}\\b(?:(?: and)? (\\d+)\\b(?![/.,]\\d))?`, 'g'),
    (whole, n: string | undefined, more: string | undefined) => more && Number(more) >= most
      ? whole
      : String((n && /\d/.test(n) ? Number(n) : 1) * size + Number(more ?? 0)),
  )
  return large('thousand', 1000, 1000)(large('hundred', 100, 100)(text))
}
const KINDS = ['mass', 'volume', 'length', 'time'] as const
/** A unit that is spelled out, with no number before it: one of it. What is left of a deleted number is none. */
function oneOfIt(text: string): string {
  const written = unitAt(text, KINDS)?.written ?? ''
  return /^[a-z ]{4,}$/.test(written) && !written.endsWith('s') ? `1 ${text}` : text
}
/** `half pint`, `a quarter inch`, as digits. */
const partOf = (text: string): string => text.replace(/(^|(?<!\band(?: an?)?)\s)(?:an? )?(half|quarter|third) (?=[a-z])/g,
  (whole, before: string, part: string, at: number) =>
    unitAt(text.slice(at + whole.length), KINDS) ? `${before}${PARTS[part]} ` : whole)

/** Words for numbers as digits: `one and a half cups` is `1 1/2 cups`, `an hour` is `1 hour`. */
function spelledOut(text: string): string {
  return partOf(oneOfIt(text.replace(/^(about|roughly|approx\.?|ca\.?|circa|~) ?/, '')))
    .replace(/\bthree quarters of an?\b/g, '3/4')
    .replace(/\b(?:an? )?(half|quarter|third)( of)? (an?|one)\b/g, (_, part: string) => PARTS[part]!)
    .replace(/\bdeg(?:ree)?s?\b(?! ?[cf])/g, '°')
    .replace(/\b(twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)[ -](one|two|three|four|five|six|seven|eight|nine)\b/g,
      (_, tens: string, ones: string) => String(WORDS[tens]! + WORDS[ones]!))
    .replace(NUMBER_WORD, word => String(WORDS[word]))
    .replace(/^.*\b(?:hundred|thousand)\b.*$/, counted)
    .replace(/\b(\d) (third|quarter|eighth)s(?: of (?:an?|1)\b)?/g, (_, n: string, part: string) =>
      `${n}/${{ third: 3, quarter: 4, eighth: 8 }[part]}`)
    .replace(/(\d) and (an? )?(half|quarter|third)\b/g, (_, n: string, __, part: string) => `${n} ${PARTS[part]}`)
    .replace(/\b(\d+|an?) ([a-z]+) and an? half\b/g, (_, n: string, unit: string) =>
      `${/\d/.test(n) ? n : 1} 1/2 ${unit}`)
    .replace(/(^|\s)an? (?=[a-z])/g, (_, before: string) => `${before}1 `)
}

/**
 * One space, one dash, one quote and one sign of degrees; fractions as digits; lower case, but for the tablespoon's T.
 * @example normalise('1‑1⁄2″') // 1-1/2"
 */
export function normalise(text: string): string {
  const plain = text
    .replace(/[０-９]/g, d => String.fromCharCode(d.charCodeAt(0) - 0xfee0))
    .replace(/[\u00a0\u2000-\u200b\u202f\u205f\u3000\t\n\r]/g, ' ')
    .replace(/[‐‑‒–—−]/g, '-')
    .replace(/[“”„″]/g, '"')
    .replace(/[‘’‚′`´]/g, '\'')
    .replace(/[º˚]/g, '°')
    .replace(/⁄/g, '/')
    .replace(/³/g, '3')
    .replace(VULGARS, (_, c: string, next: string) => ` ${VULGAR[c]}${next && ` ${next}`}`)
    .replace(/(^|[\d\s])T(?=$|[\s.])/g, '$1tbsp')
    .toLowerCase()
    .replace(/ +/g, ' ')
    .trim()
  return spelledOut(plain)
}
