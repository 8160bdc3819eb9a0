/** What went wrong with a request, in words; `status` 0 when the server was not reached. */
export class Refused extends Error {
  constructor(readonly sentence: string, readonly status: number, readonly field?: string) {
    super(sentence)
  }
}

const UNREACHED
  = 'The workshop’s server does not answer just now. What you entered stays here and is sent when it is back.'

/** Asks the server. @throws Refused with a sentence that can be shown as it is. */
export async function api<T>(
  path: string,
  options: { method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE', body?: unknown } = {},
): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api/${path}`, {
      method: options.method ?? 'GET',
      headers: options.body === undefined ? {} : { 'content-type': 'application/json' },
      body: options.body === undefined ? undefined : JSON.stringify(options.body),
      cache: 'no-store',
      // What is saved as the page goes away is still sent.
      keepalive: options.method === 'PUT' && globalThis.document?.visibilityState === 'hidden',
    })
  }
  catch {
    throw new Refused(UNREACHED, 0)
  }
  const answer = await response.json().catch(() => undefined) as
    | { data?: { sentence?: string, field?: string } }
    | undefined
  if (!response.ok)
    throw new Refused(
      answer?.data?.sentence ?? 'The server could not do this. Try it again.',
      response.status,
      answer?.data?.field,
    )
  return answer as T
}

/** A new id; also where the browser offers none because the page came over plain http. */
export function newId(): string {
  if (typeof crypto.randomUUID === 'function') return crypto.randomUUID()
  const b = crypto.getRandomValues(new Uint8Array(16))
  b[6] = (b[6]! & 0x0F) | 0x40
  b[8] = (b[8]! & 0x3F) | 0x80
  const hex = [...b].map(x => x.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}
