/**
 * Where a route is found.
 * @param path as in the table's names: `plans/:id`
 * @example pathOf('plans/:id', { id: '7f3c' }) // '/api/plans/7f3c'
 */
export function pathOf(
  path: string,
  params: Readonly<Record<string, unknown>> = {},
  query: Readonly<Record<string, unknown>> = {},
): string {
  const told = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])))
  const asked = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) =>
      [value].flat().flatMap(v => v === undefined ? [] : [[name, String(v)]]),
    ),
  ).toString()
  return `/api/${told}${asked && `?${asked}`}`
}
