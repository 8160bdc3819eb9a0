import type { ImportJob } from '~contract/import'
import type { ImportCounts } from '~contract/import-state'

const thousands = (n: number) => n.toLocaleString('en-GB').replaceAll(',', ' ')
const count = (n: number, one: string, many = `${one}s`) => n > 0 ? `${thousands(n)} ${n === 1 ? one : many}` : ''

/** What a file brought, in one breath; empty when nothing. */
export function broughtWords(counts: ImportCounts): string {
  const entries = count(counts.entries, 'entry', 'entries')
  const parts = [
    count(counts.pours, 'pour') + (entries && ` with ${entries}`),
    count(counts.moulds, 'mould'),
    count(counts.bags, 'bag'),
    count(counts.plans, 'plan'),
    count(counts.photos, 'photo'),
    count(counts.models, 'model'),
  ].filter(Boolean)
  return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`
}

/** What is being done with a file now, or what came of it. */
export function importWords({ state, counts, fault, things }: ImportJob): string {
  const brought = broughtWords(counts), isIn = brought ? `In by now: ${brought}.` : 'Nothing of it was taken in.'
  switch (state) {
    case 'waiting':
      return 'Waiting its turn'
    case 'checking':
      return 'Looking through it. Nothing has been taken in yet'
    case 'taking':
      return 'Taking it in'
    case 'taking-out':
      return 'Taking it out again'
    case 'done':
      return brought ? `Taken in: ${brought}.` : 'There was nothing in it to take in.'
    case 'given-up':
      return `Given up. ${isIn}`
    case 'refused':
      return fault?.sentence ?? 'It could not be taken in.'
    case 'broken':
      return `It broke off before it was whole. ${fault?.sentence ?? ''} ${isIn}`.replace('  ', ' ')
    case 'taken-out':
      return counts.stayed > 0
        ? `Taken out again, but for ${count(counts.stayed, 'thing')} used or changed since.`
        : 'Taken out again.'
    case 'half-out':
      return `Taken out in part: ${count(things, 'thing')} of it ${things === 1 ? 'is' : 'are'} still in.`
  }
}
