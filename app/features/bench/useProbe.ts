import { computed, ref, watch } from 'vue'
import { NO_PROBE, probed, probeFrom, type Probe } from '~core/bench/probe'
import { useRoom, useThermometer } from '~/sync/climate'
import { useClock } from '~/sync/clock'
import { useRun } from '~/sync/run'
import { useSession } from '~/sync/session'

/** A room reading this far from the last one recorded is recorded too, K. */
const ROOM_STEP = 2

/**
 * Records what the thermometer in a cast tells: a reading a kelvin, and when it was warmest; and the room's air once.
 * It reads the batch that was poured
 * last, from when its pouring began.
 */
export function useProbe() {
  const store = useRun(), clock = useClock(), session = useSession(), thermometer = useThermometer(), room = useRoom()
  const probe = ref<Probe>(NO_PROBE)
  const reads = computed(() => {
    const { state } = store
    if (!state || !session.mayWrite || !thermometer.wanted) return undefined
    const poured = state.batches.map((b, i) => ({ b, i })).filter(({ b }) => b.stages.some(s => s.stage === 'fill'))
    const { b, i } = poured.at(-1) ?? {}
    return b?.wetAt === undefined || ['finished', 'abandoned', 'drying'].includes(state.status)
      ? undefined
      : {
          batch: i!,
          wetAt: b.wetAt,
          read: b.temperatures.map(t => ({ at: (t.at - b.wetAt!) / 1000, celsius: t.celsius })),
          warmest: b.marks.some(m => m.sign === 'warmest'),
        }
  })
  // After a reload, or with a second device that reads the same thermometer, what is recorded already is not recorded
  // again.
  watch([() => store.id, () => reads.value?.batch, () => reads.value?.read.length], ([pour, batch], before) => {
    const to = reads.value, last = to?.read.at(-1)
    // That it was warmest may be told already and not yet be among what is recorded.
    const told = before[0] === pour && before[1] === batch && probe.value.peaked
    if (!to || !last) probe.value = NO_PROBE
    else if ((probe.value.told?.at ?? -1) < last.at) probe.value = probeFrom(to.read, to.warmest || told)
  }, { immediate: true })
  watch(() => thermometer.heardAt, () => {
    const { celsius } = thermometer, to = reads.value
    if (!to || celsius === undefined) return
    // To the millisecond, as it is recorded: what comes back is then known as this device's own.
    const now = Math.round(clock.read()), said = probed(probe.value, (now - to.wetAt) / 1000, celsius)
    probe.value = said.probe
    if (said.record !== undefined)
      void store.record({ kind: 'temperature', data: { celsius: said.record, where: 'cast' } }, to.batch, now)
    if (said.warmestAt !== undefined && !to.warmest)
      void store.record({ kind: 'mark', data: { sign: 'warmest' } }, to.batch, to.wetAt + said.warmestAt * 1000)
  })
  const lastRoom = computed(() => store.state?.batches[0]?.room)
  watch(() => room.celsius, (celsius) => {
    if (
      celsius === undefined || !session.mayWrite || !room.here
      || !['readying', 'pouring', 'setting'].includes(store.state?.status ?? '')
    ) return
    if (lastRoom.value === undefined || Math.abs(lastRoom.value - celsius) >= ROOM_STEP)
      void store.record({ kind: 'temperature', data: { celsius, where: 'room' } })
  })
  return { probe }
}
