import { rgb } from 'pdf-lib'

/** What everything that is printed here shares. */
export const MM = 72 / 25.4
export const INK = rgb(0.075, 0.125, 0.122), SOFT = rgb(0.34, 0.4, 0.39)

/** The built-in fonts know Western signs; any other becomes a question mark rather than an error. */
export const plain = (text: string) =>
  [...text.replaceAll(/[\u2009\u202F]/g, '\u00A0')].map(c =>
    c.codePointAt(0)! < 256 || '–—‘’“”…×'.includes(c) ? c : '?',
  ).join('')
