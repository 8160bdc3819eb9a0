import { momentsOfJob } from '~core/job/moments'
import { timesOfBegun } from '~core/job/pour-times'
import { jobMomentWords, nameOfStep } from '~core/job/words'
import type { LibraryItem } from '~contract/library'
import type { PourRow } from '~contract/pour'
import type { Alarm } from '~/sync/alarms'
import { dayAndTime } from '~/ui/when'

/** Moments of jobs as alarms: told on whatever screen one is (app/sync/alarms.ts). */
export function alarmsOfJobs(jobs: readonly LibraryItem<'job'>[], rows: readonly PourRow[]): readonly Alarm[] {
  const summaries = new Map(rows.map(p => [p.id, p.summary]))
  return jobs.flatMap(({ id, body }) => {
    const pours = timesOfBegun(body.steps, pour => summaries.get(pour))
    return momentsOfJob(body.steps, pours).map(({ step, kind, at, to }): Alarm => ({
      id: `${id}-${step}-${kind}`, at, kind, of: id, name: body.name || 'A job', to: `/jobs/${id}`,
      told: jobMomentWords(
        kind, nameOfStep(body.steps.find(s => s.id === step)!), to === undefined ? undefined : dayAndTime(to, at),
      ),
    }))
  })
}
