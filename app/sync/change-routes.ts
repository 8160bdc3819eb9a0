import type { LogbookView } from '~contract/logbook'
import type { WorkshopChange } from '~contract/account'
import type { Plan } from '~core/plan/types'
import { ask } from './api'
import { putsAway, type Change, type Target, type Theirs } from './kept-changes'

/** What the server says to a change: the revision that came of it, 0 where a thing has none. */
interface Made { readonly revision: number, readonly answer?: unknown }

/** What something in between says is no answer to this. @throws when it is none */
function heard<T>(answer: T | undefined, isAnswer: (answer: T) => boolean): T {
  if (answer === undefined || !isAnswer(answer)) throw new Error('This was not the server’s answer.')
  return answer
}
const isDone = (answer: { readonly ok: true }) => answer.ok

async function putAway(target: Target): Promise<Made> {
  switch (target.what) {
    case 'item':
      heard(await ask('DELETE library/:kind/:id', { params: { kind: target.kind, id: target.id } }), isDone)
      break
    case 'plan':
      heard(await ask('DELETE plans/:id', { params: { id: target.id } }), isDone)
      break
    case 'view':
      heard(await ask('DELETE logbook/views/:id', { params: { id: target.id } }), isDone)
      break
    // A workshop is not put away.
    case 'workshop':
      break
    case 'photo':
      heard(await ask('DELETE photos/:id', { params: { id: target.id } }), isDone)
  }
  return { revision: 0 }
}

/** Sends a change by its thing's own route. @throws Refused as `ask` does; any error when it got no answer */
export async function putOnServer(change: Change): Promise<Made> {
  const { target, body, base: revision, picture } = change
  if (putsAway(change)) return putAway(target)
  switch (target.what) {
    case 'item': {
      const { kind, id } = target,
        told = await ask('PUT library/:kind/:id', { params: { kind, id }, body: { body: body as object, revision } }),
        answer = heard(told, a => a.id === id && a.revision > 0)
      return { revision: answer.revision, answer }
    }
    case 'plan': {
      const { id } = target, told = await ask('PUT plans/:id', { params: { id }, body: { plan: body as Plan, revision } }),
        answer = heard(told, a => a.id === id && a.revision > 0)
      return { revision: answer.revision, answer }
    }
    case 'view':
      heard(
        await ask('PUT logbook/views/:id', { params: { id: target.id }, body: body as Omit<LogbookView, 'id'> }),
        isDone,
      )
      return { revision: 0, answer: { ...body as LogbookView, id: target.id } }
    case 'workshop':
      heard(await ask('PATCH workshop', { body: body as WorkshopChange }), isDone)
      return { revision: 0, answer: body }
    case 'photo': {
      const { blob, caption } = picture!, { id, of } = target
      heard(await ask('PUT photos/:id', { params: { id }, query: { ...of, caption }, bytes: blob }), a => a.id === id)
      return { revision: 0 }
    }
  }
}

/** The version that the server has of a thing with revisions. @throws Refused as `ask` does */
export async function theirsOf(target: Target): Promise<Theirs & { readonly answer: unknown } | undefined> {
  if (target.what === 'item') {
    const answer = (await ask('GET library/:kind', { params: { kind: target.kind } })).find(i => i.id === target.id)
    return answer && { revision: answer.revision, body: answer.body, answer }
  }
  if (target.what !== 'plan') return undefined
  const answer = (await ask('GET plans')).find(p => p.id === target.id)
  return answer && { revision: answer.revision, body: answer.plan, answer }
}
