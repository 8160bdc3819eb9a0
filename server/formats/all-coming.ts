import { comingMoments, type Coming } from '~core/formats/coming'
import { comingOfJobs } from '~core/formats/coming-jobs'
import { libraryItems } from '../store/library'
import { castRows, pourRows } from '../store/pours'
import type { Scope } from '../store/scope'

/** Moments to come of a workshop, of its casts and of its jobs, in the order of time. */
export async function allComing(scope: Scope, now: number): Promise<readonly Coming[]> {
  const casts = comingMoments(await castRows(scope, now), now), jobs = await libraryItems(scope, 'job')
  const under = jobs.filter(j => !j.body.own).map(j => ({ id: j.id, name: j.body.name || 'A job', steps: j.body.steps }))
  if (under.length === 0) return casts
  const summaries = new Map((await pourRows(scope)).map(p => [p.id, p.summary]))
  return [...casts, ...comingOfJobs(under, id => summaries.get(id), now)].sort((a, b) => a.from - b.from)
}
