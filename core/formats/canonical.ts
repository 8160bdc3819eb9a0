/** JSON of which there is only one for the same value: keys in order, no spaces, nothing that is undefined. */
export function canonicalJson(value: unknown): string {
  return JSON.stringify(
    value,
    (_, v: unknown) =>
      v !== null && typeof v === 'object' && !Array.isArray(v) && !(v instanceof Date)
        ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => a < b ? -1 : a > b ? 1 : 0))
        : v,
  )
}
