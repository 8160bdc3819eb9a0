import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { settingCurve, type SettingCurve } from '~core/setting/hydration'
import { whatChanged } from '~core/lab/changes'
import { labFacts, type LabFact } from '~core/lab/facts'
import { labInput, usualMix, type LabCentre, type LabMix } from '~core/lab/mix'
import { labRemarks, type LabRemarks } from '~core/lab/remarks'
import { changeWords } from '~core/lab/words'
import { centreMoments, type Forecast } from '~core/setting/moments'
import { labSchema } from '~contract/lab'
import { forecast } from '~/features/plan/forecasts'
import { useSession } from '../../sync/session'

export const MOST_VARIANTS = 4
const KEPT = 'lab', FORECAST_AFTER_MS = 60
const CURVE_UNTIL = 3 * 3600

/** One variant worked out: its remarks, and unless it is refused its centre values and curve. */
export interface Worked {
  readonly mix: LabMix
  readonly remarks: LabRemarks
  readonly centre?: LabCentre
  readonly curve?: SettingCurve
}

/** Only what changed is worked out again: a mix is never edited, only replaced. */
const worked = new WeakMap<LabMix, Worked>()
function workOut(mix: LabMix): Worked {
  const known = worked.get(mix)
  if (known) return known
  const remarks = labRemarks(mix)
  const input = labInput(mix)
  const result: Worked = remarks.refusal
    ? { mix, remarks }
    : {
        mix,
        remarks,
        centre: centreMoments(input),
        curve: settingCurve({ ...input, ratio: mix.ratio }, CURVE_UNTIL, 160),
      }
  worked.set(mix, result)
  return result
}

function kept(): { mixes: LabMix[], chosen: number } {
  try {
    const { mixes, chosen } = labSchema.parse(JSON.parse(localStorage.getItem(KEPT) ?? ''))
    return { mixes, chosen: Math.min(chosen, mixes.length - 1) }
  }
  catch {
    // Nothing kept, or nothing that can be read any more: begin with the commonest question.
    const usual = usualMix('plaster-of-paris')
    return { mixes: [usual, { ...usual, ratio: 0.6 }], chosen: 1 }
  }
}

/** Up to four mixes side by side: centre values at once, ranges from the worker a moment later. */
export const useLab = defineStore('lab', () => {
  const session = useSession()
  const start = kept()
  const mixes = shallowRef<readonly LabMix[]>(start.mixes)
  const chosen = ref(start.chosen)
  const results = computed(() => mixes.value.map(workOut))
  const mix = computed(() => mixes.value[chosen.value]!)
  const current = computed(() => results.value[chosen.value]!)

  const ranges = shallowRef(new Map<LabMix, Forecast>())
  let timer: ReturnType<typeof setTimeout> | undefined
  async function askNext(): Promise<void> {
    const stale = [mix.value, ...mixes.value].find(m => !ranges.value.has(m) && workOut(m).centre)
    if (!stale) return
    const answer = await forecast([labInput(stale)])
    if (!answer?.[0]) return // a newer question has ended this one, and goes on itself
    ranges.value = new Map([...ranges.value].filter(([m]) => mixes.value.includes(m))).set(stale, answer[0])
    await askNext()
  }
  watch([mixes, chosen], ([now, at]) => localStorage.setItem(KEPT, JSON.stringify({ mixes: now, chosen: at })))
  watch(mixes, () => {
    clearTimeout(timer)
    timer = setTimeout(() => void askNext(), FORECAST_AFTER_MS)
  }, { immediate: true })

  const facts = computed<readonly (readonly LabFact[] | undefined)[]>(() =>
    results.value.map(r => r.centre && labFacts(r.mix, r.centre, ranges.value.get(r.mix))),
  )
  /** For each variant but the first: what it does differently from the first, in words. */
  const changes = computed(() => results.value.map((r, i) => {
    const base = results.value[0]!
    if (i === 0 || !r.centre || !base.centre) return ''
    return changeWords(whatChanged(base.mix, r.mix, base.centre, r.centre), session.units)
  }))

  function change(part: Partial<LabMix>): void {
    mixes.value = mixes.value.map((m, i) => i === chosen.value ? { ...m, ...part } : m)
  }
  function add(): void {
    if (mixes.value.length >= MOST_VARIANTS) return
    mixes.value = [...mixes.value, { ...mix.value }]
    chosen.value = mixes.value.length - 1
  }
  function remove(index: number): void {
    if (mixes.value.length < 2) return
    mixes.value = mixes.value.filter((_, i) => i !== index)
    chosen.value = Math.min(chosen.value, mixes.value.length - 1)
  }
  /** Begins again from one mix: the base, and a copy of it to move. */
  function startFrom(base: LabMix): void {
    mixes.value = [base, { ...base }]
    chosen.value = 1
  }
  return { mixes, chosen, mix, results, current, ranges, facts, changes, change, add, remove, startFrom }
})
