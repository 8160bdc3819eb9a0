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

/** The body of a mould, saved by itself a moment after the last change. */
function savedByItself(item: LibraryItem<'mould'>) {
  const library = useLibrary(), session = useSession()
  const body = ref<MouldBody>(JSON.parse(JSON.stringify(item.body)) as MouldBody)
  const revision = ref(item.revision), saving = ref<'saved' | 'waiting' | 'failed'>('saved'), trouble = ref('')
  let timer: ReturnType<typeof setTimeout> | undefined
  let inFlight: Promise<void> = Promise.resolve()

  function change(part: Partial<MouldBody>): void {
    body.value = { ...body.value, ...part }
    if (!session.mayWrite) return
    saving.value = 'waiting'
    clearTimeout(timer)
    timer = setTimeout(() => void save(), SAVE_AFTER_MS)
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
  return { body, saving, trouble, change, save }
}

/** One mould in hand: changed live, its volume always what its gauges give together. */
export function useMould(item: LibraryItem<'mould'>) {
  const { body, saving, trouble, change, save } = savedByItself(item)
  const gauges = computed(() => gaugesOf(body.value))
  /** With what its pours really took. */
  const andPours = (own: readonly Gauge[]): readonly Gauge[] =>
    item.poured ? [...own, { how: 'pours', volume: item.poured.volume, casts: item.poured.casts }] : own
  const together = (all: readonly Gauge[]) =>
    all.some(g => gaugeProblem(g) === undefined) ? combineGauges(all) : undefined
  const withPours = computed(() => andPours(gauges.value))
  const gauged = computed(() => together(withPours.value))

  /** Gauges decide the volume; with none left the last one stands. */
  function setGauges(next: readonly Gauge[]): void {
    const { value, low, high } = together(andPours(next)) ?? body.value.volume
    change({ gauges: [...next], volume: { value, low, high } })
  }
  return { body, gauges, withPours, gauged, saving, trouble, change, setGauges, save }
}
