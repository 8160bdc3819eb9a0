import { computed, onMounted, reactive, watch } from 'vue'
import { powderClass, powderInSentence } from '~core/gypsum/powders'
import {
  FINGER, holdsOne, MOST_PIECES, offBy, thingsOf, withoutScale, workOutDoor,
  type DoorAmount, type DoorNames, type DoorThings, type DoorWay, type DoorWish,
} from '~core/door/door'
import { DOOR_KINDS, KINDS, type BucketSizeId, type DoorKindId, type MeasureId, type SizeId } from '~core/door/kinds'
import { BUCKET_WORDS, DOOR_PROBLEM_WORDS, KIND_WORDS, piecesWords, SIZE_WORDS } from '~core/door/words'
import { tapeOfPlan } from '~core/plan/tape'
import { problemWords } from '~core/plan/words'
import type { Printed } from '~core/plan/types'
import { capital } from '~core/units/sentences'
import type { UnitPreferences } from '~core/units/units'
import { whenIdle } from './idle'

/** What somebody at the door has said so far: each part stands until another is said, so that nothing typed is lost. */
export interface Said {
  kind: DoorKindId
  size: SizeId | 'own'
  measures: { width: number, length: number, depth: number }
  by: DoorAmount['by']
  volume: number
  mix: { powder: number, water: number, left: number }
  /** What was left of that mix, told by its depth: in how many fingers, of which bucket. */
  deep: { by: boolean, fingers: number, bucket: BucketSizeId }
  count: number
  classId: DoorWish['classId']
  printed: Printed
  way: DoorWay
  bucket: BucketSizeId | undefined
  /** Whether a finished impression is ready, where a person is cast. */
  ready: boolean | undefined
}

const KEPT = 'door'
/** Nine hearts, worked out already: the first gram is on the page at once. */
const FIRST: Said = {
  kind: 'heart', size: 'middle', measures: { ...KINDS.heart.sizes.middle }, by: 'measures', volume: 5e-4,
  mix: { powder: 0, water: 0, left: 0 }, deep: { by: false, fingers: 1, bucket: 'ten' }, count: 9, classId: 'plaster-of-paris', printed: {}, way: 'weighed',
  bucket: undefined, ready: undefined,
}
/** What was said in this tab before, also where the page was left and opened again. */
function saidBefore(): Partial<Said> {
  try {
    const kept = JSON.parse(globalThis.sessionStorage?.getItem(KEPT) ?? 'null') as Partial<Said> | null
    if (kept?.kind && kept.kind in KINDS) return { ...kept, deep: kept.deep ?? FIRST.deep }
  }
  catch { /* nothing that can be read */ }
  return {}
}
function keepSaid(said: Said): void {
  try {
    sessionStorage.setItem(KEPT, JSON.stringify(said))
  }
  catch { /* a browser that keeps nothing */ }
}

/** It went to the bench: the next one who stands here begins anew. */
export function forgetSaid(): void {
  try {
    sessionStorage.removeItem(KEPT)
  }
  catch { /* nothing was kept */ }
}

/** How it is called where it is kept. */
function namesOf({ kind, size, count, classId }: Said): DoorNames {
  return {
    plan: `${capital(piecesWords(kind, count))}, ${powderInSentence(powderClass(classId))}`,
    mould: size === 'own' ? KIND_WORDS[kind].one : `${KIND_WORDS[kind].one}, ${SIZE_WORDS[kind][size].toLowerCase()}`,
    bucket: id => BUCKET_WORDS[id].replace(/^A /, ''),
    bag: powderClass(classId).name,
  }
}

function wishOf({ by, measures, volume, mix, deep, ...said }: Said): DoorWish {
  const left = deep.by ? { deep: deep.fingers * FINGER, bucket: deep.bucket } : mix.left
  const amounts = { measures: { by, measures }, volume: { by, volume }, mix: { by, ...mix, left } }
  return { ...said, amount: amounts[by] as DoorAmount }
}

/**
 * The first time anything is worked out takes a phone many times as long as the second: once nobody presses anything,
 * each kind is, one at a time, so that the first press answers like the tenth.
 */
function getReady(): void {
  const names: DoorNames = { plan: '', mould: '', bucket: () => '', bag: '' }, kinds = [...DOOR_KINDS]
  function one(): void {
    const kind = kinds.pop()
    if (!kind) return
    const things = thingsOf({ ...wishOf(FIRST), kind, amount: { by: 'measures', measures: KINDS[kind].sizes.middle } }, names)
    if (typeof things !== 'string') workOutDoor(things)
    whenIdle(one)
  }
  whenIdle(one)
}

/** The door: what is said, and what comes of it at once. */
export function useDoor(units: () => UnitPreferences) {
  // What was drawn beforehand is the first; then what was said here.
  const said = reactive<Said>(structuredClone(FIRST))
  onMounted(() => {
    Object.assign(said, saidBefore())
    watch(said, keepSaid)
    getReady()
  })
  const wish = computed(() => wishOf(said))
  const holds = computed(() => holdsOne(wish.value))
  const things = computed(() => thingsOf(wish.value, namesOf(said)))
  const found = computed(() => typeof things.value === 'string' ? undefined : workOutDoor(things.value))
  const problem = computed(() => {
    if (typeof things.value === 'string') return DOOR_PROBLEM_WORDS[things.value]
    const refused = found.value?.problems.find(p => p.severity === 'refuse')
    return refused ? problemWords(refused, units()) : ''
  })
  /** Something is still to be said, and nothing is wrong. */
  const waits = computed(() => things.value === 'no-measure' || things.value === 'no-mix')
  const bucket = computed(() => problem.value === '' ? found.value?.batches[0] : undefined)
  const ifThings = <T>(work: (of: DoorThings) => T) =>
    computed(() => typeof things.value === 'string' ? undefined : work(things.value))
  const tape = computed(() => found.value && tapeOfPlan(said.way, found.value))
  const without = ifThings((t) => {
    const { mix, castVolume } = bucket.value ?? {}
    if (!mix || !castVolume) return undefined
    return withoutScale(t, { powder: mix.powder, water: mix.waterVolume, fills: castVolume })
  })
  const errors = ifThings(t => ({
    weighed: offBy(t, 'weighed').off, saturation: offBy(t, 'saturation').off, scoops: offBy(t, 'scoops').off,
  }))
  const isPerson = computed(() => KINDS[said.kind].skin === true)
  const mayMix = computed(() => bucket.value !== undefined && (!isPerson.value || said.ready === true))

  function chooseKind(kind: DoorKindId): void {
    Object.assign(said, { kind, by: 'measures', ready: undefined })
    chooseSize(said.size === 'own' ? 'middle' : said.size)
    if (kind === 'face' || kind === 'hand' || kind === 'print') said.count = 1
  }
  function chooseSize(size: SizeId): void {
    Object.assign(said, { size, by: 'measures', measures: { ...KINDS[said.kind].sizes[size] } })
  }
  function measure(which: MeasureId, value: number): void {
    Object.assign(said, { size: 'own', by: 'measures', measures: { ...said.measures, [which]: value } })
  }
  function setCount(count: number): void {
    said.count = Math.max(1, Math.min(MOST_PIECES, Math.round(count) || 1))
  }
  return {
    said, holds, things, found, problem, waits, bucket, tape, without, errors, isPerson, mayMix,
    chooseKind, chooseSize, measure, setCount,
  }
}
export type Door = ReturnType<typeof useDoor>
