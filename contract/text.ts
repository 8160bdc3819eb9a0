/**
 * What a database cannot hold in a text, and no one can see: NUL and other control characters, and halves of letters
 * that were cut in two. Line breaks and tabs stay.
 */
// eslint-disable-next-line no-control-regex -- these are what it is about
const UNHOLDABLE = /[\u0000-\u0008\u000B\u000C\u000E-\u001F\u007F]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g

/**
 * A plain value as it can be kept: every text in it without what cannot be held. Before it is written down in the
 * browser, and again where it arrives.
 * @example holdable({ text: 'cracked\u0000' }) // { text: 'cracked' }
 */
export function holdable<T>(value: T): T {
  if (typeof value === 'string') return value.replace(UNHOLDABLE, '') as T
  if (Array.isArray(value)) return value.map(holdable) as T
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [holdable(k), holdable(v)])) as T
}
