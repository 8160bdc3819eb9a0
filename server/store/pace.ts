import { sql } from 'kysely'
import { learnPace, type Pace, type PaceStep } from '~core/plan/batches/pace'
import type { PaceTaken } from '~core/pour/pace-taken'
import type { Scope } from './scope'

/** A person's last pours count; older ones have faded. */
const POURS_THAT_COUNT = 40, STEPS: readonly PaceStep[] = ['sift', 'stir', 'pour']

/** What the pours of a workshop taught of one person's pace. @param who their id, as entries have it */
export async function paceOf(scope: Scope, who: string): Promise<Pace> {
  const mine = JSON.stringify([{ who }])
  const rows = await scope.select('pour_projection').select(sql<PaceTaken[]>`body->'pace'`.as('pace'))
    .where('status', '<>', 'abandoned').where(sql<boolean>`(body->'pace' @> ${mine}::jsonb)`)
    .orderBy('started_at', 'desc').limit(POURS_THAT_COUNT).execute()
  const taken = rows.flatMap(r => r.pace).filter(t => t.who === who)
  return Object.fromEntries(STEPS.flatMap((step) => {
    const took = taken.filter(t => t.step === step).map(t => t.took)
    return took.length > 0 ? [[step, learnPace(step, took)]] : []
  }))
}
