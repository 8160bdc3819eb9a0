import { computed } from 'vue'
import type { JobStep } from '~core/job/types'
import { usePlans } from '~/sync/plans'
import { usePours } from '~/sync/pours'
import { useWorlds } from '~/sync/worlds'
import { timesOfStep } from './planned'

/** Pours of a job as they are known here, by its steps; and what each is expected to do. */
export function usePourTimes(steps: () => readonly JobStep[]) {
  const pours = usePours(), plans = usePlans(), worldOf = useWorlds()
  return computed(() => new Map(steps().flatMap((s) => {
    const summary = pours.rows.find(p => p.id === s.pour)?.summary
    const times = timesOfStep(s, summary, plans.planOf, worldOf)
    return times ? [[s.id, times] as const] : []
  })))
}
