import { computed, ref } from 'vue'
import { combineGauges, gaugeProblem, type Gauge } from '~core/mould/gauge/gauge'
import { mouldSchema, type LibraryItem, type MouldBody } from '~contract/library'
import { savedByItself } from '~/sync/by-itself'
import { useSession } from '~/sync/session'

/** What a mould was known by before it kept its gauges: its volume, as told. */
export function gaugesOf(body: MouldBody): readonly Gauge[] {
  const { value, low, high } = body.volume
  return body.gauges
    ?? [{ how: 'told', volume: value, percent: Math.max(0.5, Math.round(1000 * Math.log(high / low) / 2) / 10) }]
}

/** The body of a mould, saved by itself a moment after the last change. */
function inHand(item: LibraryItem<'mould'>) {
  const session = useSession()
  const body = ref<MouldBody>(JSON.parse(JSON.stringify(item.body)) as MouldBody)
  const { begin, touch, ...saving } = savedByItself(() => ({ what: 'item', kind: 'mould', id: item.id }), () => {
    const checked = mouldSchema.safeParse(body.value)
    return checked.success ? checked.data : checked.error.issues[0]!.message
  })
  begin(item)
  function change(part: Partial<MouldBody>): void {
    body.value = { ...body.value, ...part }
    if (session.mayWrite) touch()
  }
  return { body, saving: saving.saving, trouble: saving.trouble, waiting: saving.change, change, save: saving.save }
}

/** One mould in hand: changed live, its volume always what its gauges give together. */
export function useMould(item: LibraryItem<'mould'>) {
  const { body, saving, trouble, change, save, waiting } = inHand(item)
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
  return { body, gauges, withPours, gauged, saving, trouble, waiting, change, setGauges, save }
}
