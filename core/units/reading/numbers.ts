/** Numbers as people write them, and what else the same digits may be. */

export type Decimal = '.' | ','
export interface NumberRead { readonly value: number, readonly other?: number }

/** What stands at the beginning of some text as a number, as it is written. */
const WRITTEN = [
  /^\d+[ -]\d+\/\d+/,
  /^\d+\/\d+/,
  /^\d{1,3}(?: \d{3})+(?!\d)(?:[.,]\d+)?/,
  /^\d{1,3}(?:'\d{3})+(?!\d)(?:[.,]\d+)?/,
  /^\d+[\d.,]*\d/,
  /^\d/,
  /^[.,]\d+/,
] as const

/** The number that some text begins with, if it does. */
export function numberAt(text: string): string | undefined {
  return WRITTEN.map(form => form.exec(text)?.[0]).find(found => found !== undefined)
}

/** One separator: thousands where exactly three digits follow and the country has it so, else a decimal one. */
function withOne(text: string, mark: Decimal, decimal: Decimal): NumberRead | undefined {
  const parts = text.split(mark)
  if (parts.length > 2)
    return parts.slice(1).every(p => p.length === 3) && /^\d{1,3}$/.test(parts[0]!) ? { value: Number(parts.join('')) } : undefined
  const [whole, rest] = parts as [string, string]
  const asDecimal = Number(`${whole || '0'}.${rest}`)
  if (rest.length !== 3 || whole === '' || whole.length > 3 || whole.startsWith('0')) return { value: asDecimal }
  const grouped = Number(whole + rest)
  return mark === decimal ? { value: asDecimal, other: grouped } : { value: grouped, other: asDecimal }
}

/**
 * What a written number is by the habit of a country, and what else it may be: a separator with exactly three digits
 * after it groups or divides. @returns undefined for what is none, a fraction over nothing included
 * @example readNumber('1,250', '.') // { value: 1250, other: 1.25 }
 */
export function readNumber(written: string, decimal: Decimal): NumberRead | undefined {
  const fraction = /^(?:(\d+)[ -])?(\d+)\/(\d+)$/.exec(written)
  if (fraction) {
    const under = Number(fraction[3])
    return under === 0 ? undefined : { value: Number(fraction[1] ?? 0) + Number(fraction[2]) / under }
  }
  if (/[ ']/.test(written)) {
    const groups = written.split(/[ ']/), joined = groups.join('').replace(',', '.')
    const alone = groups.length === 2 && !/[.,]/.test(written)
    return { value: Number(joined), ...alone && { other: Number(groups.join('.')) } }
  }
  const points = written.includes('.'), commas = written.includes(',')
  if (points && commas) {
    const last = written.lastIndexOf('.') > written.lastIndexOf(',') ? '.' : ',', group = last === '.' ? ',' : '.'
    const [whole, ...rest] = written.split(last)
    const good = rest.length === 1 && new RegExp(`^\\d{1,3}(\\${group}\\d{3})+$`).test(whole!)
    return good ? { value: Number(`${whole!.replaceAll(group, '')}.${rest[0]}`) } : undefined
  }
  if (points) return withOne(written, '.', decimal)
  if (commas) return withOne(written, ',', decimal)
  return { value: Number(written) }
}
