import { computed, ref } from 'vue'
import { combineGauges, gaugeProblem, type Gauge } from '~core/mould/gauge/gauge'
import { mouldSchema, type LibraryItem, type MouldBody } from '~contract/library'
import { Refused } from '~/sync/api'
import { useLibrary } from '~/sync/library'
import { useSession } from '~/sync/session'

const SAVE_AFTER_MS = 500

/** What a mould was known by before it kept its gauges: its volume, as told. */
export function gaugesOf(body: MouldBody): readonly Gauge[] {
  const { value, low, high } = body.volume
  return body.gauges
    ?? [{ how: 'told', volume: value, percent: Math.max(0.5, Math.round(1000 * Math.log(high / low) / 2) / 10) }]
}

/** One mould in hand: changed live, its volume always what its gauges give together, saved by itself. */
export function useMould(item: LibraryItem<'mould'>) {
  const library = useLibrary(), session = useSession()
  const body = ref<MouldBody>(JSON.parse(JSON.stringify(item.body)) as MouldBody)
  const revision = ref(item.revision)
  const saving = ref<'saved' | 'waiting' | 'failed'>('saved')
  const trouble = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let inFlight: Promise<void> = Promise.resolve()

  const gauges = computed(() => gaugesOf(body.value))
  const withPours = computed<readonly Gauge[]>(() =>
    item.poured
      ? [...gauges.value, { how: 'pours', volume: item.poured.volume, casts: item.poured.casts }]
      : gauges.value,
  )
  const gauged = computed(() =>
    withPours.value.some(g => gaugeProblem(g) === undefined)
      ? combineGauges(withPours.value)
      : undefined,
  )

  function change(part: Partial<MouldBody>): void {
    body.value = { ...body.value, ...part }
    if (!session.mayWrite) return
    saving.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(() => void save(), SAVE_AFTER_MS)
  }
  /** Gauges decide the volume; with none left the last one stands. */
  function setGauges(next: readonly Gauge[]): void {
    const all = item.poured
      ? [...next, { how: 'pours' as const, volume: item.poured.volume, casts: item.poured.casts }]
      : next
    const usable = all.filter(g => gaugeProblem(g) === undefined)
    const { value, low, high } = usable.length ? combineGauges(usable) : body.value.volume
    change({ gauges: [...next], volume: { value, low, high } })
  }
  /** One at a time: each save needs the revision that the one before it made. */
  function save(): Promise<void> {
    clearTimeout(timer)
    inFlight = inFlight.then(saveNow)
    return inFlight
  }
  async function saveNow(): Promise<void> {
    if (saving.value === 'saved') return
    const checked = mouldSchema.safeParse(body.value)
    if (!checked.success) {
      saving.value = 'failed'
      trouble.value = checked.error.issues[0]!.message
      return
    }
    const sent = body.value
    try {
      await library.save('mould', item.id, checked.data, revision.value)
      revision.value++
      if (body.value === sent) saving.value = 'saved'
      trouble.value = ''
    }
    catch (error) {
      saving.value = 'failed'
      trouble.value = error instanceof Refused ? error.sentence : 'This mould could not be saved yet.'
    }
  }
  return { body, gauges, withPours, gauged, saving, trouble, change, setGauges, save }
}
