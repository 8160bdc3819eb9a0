import { rgb } from 'pdf-lib'

/** What everything that is printed here shares. */
export const MM = 72 / 25.4
export const INK = rgb(0.075, 0.125, 0.122), SOFT = rgb(0.34, 0.4, 0.39)

/** Line breaks, tabs and other signs that are no letters. */
const CONTROLS = /\p{Cc}+/gu
const THIN_SPACES = /[\u2009\u202F]/g

/** One line, in the Western signs that the built-in fonts know; any other becomes a question mark, and no fault. */
export const plain = (text: string) =>
  [...text.replaceAll(CONTROLS, ' ').replaceAll(THIN_SPACES, '\u00A0')].map(c =>
    c.codePointAt(0)! < 256 || '–—‘’“”…×'.includes(c) ? c : '?',
  ).join('')
