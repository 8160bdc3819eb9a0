import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { likenessOfOutlines } from '~core/drawing/likeness'
import { combineGauges, type Gauge } from '~core/mould/gauge/gauge'
import {
  COVER,
  DEPTH,
  guessedGauge,
  outlinedGauge,
  printSize,
  RING,
  startingPoints,
  startingScale,
  withCorner,
  withScaleMoved,
} from '~core/mould/photo/marks'
import {
  ground,
  photoArea,
  photoLength,
  type Camera,
  type Measured,
  type PhotoScale,
  type Pixel,
} from '~core/mould/photo/photo'
import { markName, SCALE_PROBLEM_WORDS } from '~core/mould/words'
import { formatPosition } from '~core/units/format'
import { mouldSchema, type Impression, type LibraryItem, type MouldBody } from '~contract/library'
import { newId, Refused } from '~/sync/api'
import { useClock } from '~/sync/clock'
import { useLibrary } from '~/sync/library'
import { keepPhoto, photoAddress, photosOf, shrunk, type SmallPhoto } from '~/sync/photos'
import { photoFacts, type PhotoFacts } from './photo-facts'

type Mark = NonNullable<Impression['photo']>['marks'][number]

const CAMERA: Camera = { distance: 0.6, deeper: 0 }
interface Shown { readonly url: string, readonly width: number, readonly height: number }

/** The photo in hand, what is marked in it, and what is known of the print. */
function printState(today: () => string) {
  const blank = () => ({ name: '', place: '', on: today(), believed: '', faced: '' })
  const state = {
    picture: shallowRef<Shown>(),
    scale: ref<PhotoScale>(),
    marks: ref<Mark[]>([]),
    camera: ref<Camera>(CAMERA),
    facts: ref(blank()),
    /** What the camera wrote beside the photo in hand. It goes into the facts only when it is asked for. */
    taken: ref<PhotoFacts>({}),
    depth: ref(DEPTH),
    cover: ref(COVER),
    trouble: ref(''),
    busy: ref(false),
    kept: ref<string>(),
    /** The mould that keeps the print in hand, once one does. */
    item: shallowRef<LibraryItem<'mould'>>(),
    /** The photo as it is to be kept; absent once it is. */
    fresh: shallowRef<SmallPhoto>(),
    photoId: ref(''),
  }
  function clear(): void {
    if (state.picture.value?.url.startsWith('blob:')) URL.revokeObjectURL(state.picture.value.url)
    for (const one of [state.picture, state.scale, state.kept, state.fresh, state.item]) one.value = undefined
    state.marks.value = []
    state.camera.value = CAMERA
    state.taken.value = {}
    state.facts.value = blank()
    state.depth.value = DEPTH
    state.cover.value = COVER
    state.trouble.value = ''
  }
  return { ...state, clear }
}
type State = ReturnType<typeof printState>

/** What the marks measure. */
function measuring({ scale, marks, camera, depth, cover }: State) {
  const standing = computed(() => scale.value ? ground(scale.value) : undefined)
  /** What each mark measures; undefined while the scale does not stand. */
  const measured = computed<readonly (Measured | undefined)[]>(() =>
    marks.value.map((m) => {
      if (!scale.value || !standing.value?.ok) return undefined
      return m.what === 'length'
        ? photoLength(scale.value, m.points[0]!, m.points[1]!, camera.value)
        : photoArea(scale.value, m.points, camera.value)
    }),
  )
  const size = computed(() => printSize(marks.value, measured.value))
  const gauge = computed<Gauge | undefined>(() => outlinedGauge(size.value, depth.value, cover.value))
  return { standing, measured, size, gauge }
}

/** Putting marks into the photo and moving them. */
function marking({ picture, scale, marks }: State) {
  /** What a ruler or rectangle measures, m. */
  function setScaleSize(size: { readonly length?: number, readonly width?: number }): void {
    if (scale.value) scale.value = { ...scale.value, ...size } as PhotoScale
  }
  function setScale(how: PhotoScale['how']): void {
    scale.value = startingScale(how, picture.value!)
  }
  function add(what: Mark['what']): void {
    const nth = marks.value.filter(m => m.what === what).length
    marks.value = [...marks.value, {
      name: markName(what, nth),
      what,
      points: startingPoints(what, nth, picture.value!),
    }]
  }
  function change(i: number, part: Partial<Mark>): void {
    marks.value = marks.value.map((m, j) => j === i ? { ...m, ...part } : m)
  }
  function drop(i: number): void {
    marks.value = marks.value.filter((_, j) => j !== i)
  }
  /** Moves one mark: of the scale when `group` is −1, else of a measure. */
  function move(group: number, index: number, to: Pixel): void {
    if (group >= 0) change(group, { points: marks.value[group]!.points.map((p, j) => j === index ? to : p) })
    else if (scale.value) scale.value = withScaleMoved(scale.value, index, to)
  }
  function addCorner(group: number, place?: Pixel): void {
    change(group, { points: withCorner(marks.value[group]!.points, place) })
  }
  return { setScale, setScaleSize, add, change, drop, move, addCorner }
}
type Marking = ReturnType<typeof marking>

/** A photo taken up. */
function takingUp(state: State, { setScale, add }: Marking) {
  const { picture, facts, taken, depth, cover, trouble, busy, item, fresh, photoId } = state

  /** Another photo of the print in hand loses nothing that is known of it; after one that was kept begins the next. */
  function begin(small: SmallPhoto, beside: PhotoFacts): void {
    const known = state.kept.value
      ? undefined
      : { facts: facts.value, item: item.value, depth: depth.value, cover: cover.value }
    state.clear()
    if (known) {
      facts.value = known.facts
      item.value = known.item
      depth.value = known.depth
      cover.value = known.cover
    }
    fresh.value = small
    photoId.value = newId()
    taken.value = beside
    picture.value = { url: URL.createObjectURL(small.blob), width: small.width, height: small.height }
    setScale('ruler')
    add('length')
  }
  async function take(file: Blob): Promise<void> {
    trouble.value = ''
    busy.value = true
    try {
      const [small, beside] = await Promise.all([shrunk(file), photoFacts(file)])
      begin(small, beside)
    }
    catch (error) {
      trouble.value = error instanceof Refused ? error.sentence : 'This picture could not be read.'
    }
    busy.value = false
  }
  /** Puts the day and the place that the camera wrote where they can be read and changed. */
  function takeOver(): void {
    const { on, at } = taken.value
    const place = [facts.value.place.trim(), at && formatPosition(at)].filter(Boolean).join(', ')
    facts.value = { ...facts.value, ...on && { on }, ...at && { place } }
    taken.value = {}
  }

  return { take, takeOver }
}

/** The print that a mould keeps. */
function opening(state: State) {
  const { picture, scale, marks, camera, facts, depth, cover, trouble, item, photoId } = state
  const library = useLibrary()
  async function openPhoto(mould: string, photo: NonNullable<Impression['photo']>): Promise<void> {
    const kept = (await photosOf({ mould })).find(p => p.id === photo.id)
    if (!kept) {
      trouble.value = 'The photo of this print was taken away; what was measured in it is on its mould.'
      return
    }
    photoId.value = kept.id
    picture.value = { url: photoAddress(kept.id), width: kept.width, height: kept.height }
    scale.value = photo.scale
    marks.value = [...photo.marks]
    camera.value = photo.camera ?? CAMERA
  }
  /** Takes up the print that a mould keeps. */
  async function open(mould: string): Promise<void> {
    state.clear()
    const found = library.items.mould.find(m => m.id === mould), impression = found?.body.impression
    if (!found || !impression) {
      trouble.value = 'This mould keeps no print.'
      return
    }
    item.value = found
    facts.value = { name: found.body.name, place: impression.place, on: impression.on, believed: impression.believed, faced: impression.faced ?? '' }
    const dam = found.body.gauges?.find(g => g.how === 'dam')
    if (dam?.how === 'dam') {
      depth.value = dam.printDepth
      cover.value = dam.cover
    }
    if (!impression.photo) return
    await openPhoto(mould, impression.photo).catch((error: unknown) => {
      trouble.value = error instanceof Refused ? error.sentence : 'The photo could not be fetched.'
    })
  }
  return { open }
}

/** The print as a mould in the ground, with its photo and what was measured. */
function mouldOfPrint(state: State, { size, gauge }: ReturnType<typeof measuring>, photoScale: PhotoScale): MouldBody {
  const { marks, camera, facts, depth, cover, item, photoId } = state
  const { long, width } = size.value, before = item.value?.body
  const gauges: Gauge[] = [
    ...(before?.gauges ?? []).filter(g => g.how !== 'dam'),
    gauge.value ?? guessedGauge(size.value, depth.value, cover.value),
  ]
  const { place, on, believed, faced, name } = facts.value
  const traced = marks.value.filter(m => m.what === 'outline').map(m => m.points), laid = ground(photoScale)
  const looks = laid.ok ? likenessOfOutlines(traced, laid.at) : undefined
  return {
    material: 'ground',
    kind: 'print',
    mouth: { shape: 'rectangular', width: width + 2 * RING, length: long + 2 * RING },
    wall: 0.05,
    section: Math.min(1, depth.value + cover.value),
    fragile: true,
    note: '',
    ...before,
    ...looks && { looks, form: undefined },
    name,
    impression: {
      place,
      on,
      believed,
      ...faced && { faced },
      photo: { id: photoId.value, scale: photoScale, camera: camera.value, marks: marks.value },
    },
    gauges,
    volume: combineGauges(gauges),
  }
}

/** Keeping it. */
function keeping(state: State, measures: ReturnType<typeof measuring>) {
  const { picture, scale, trouble, busy, kept, item, fresh, photoId } = state, { standing } = measures
  const library = useLibrary()

  async function keep(body: MouldBody): Promise<void> {
    const id = item.value?.id ?? newId()
    await library.save('mould', id, body, item.value)
    item.value = library.items.mould.find(m => m.id === id)
    if (fresh.value) {
      await keepPhoto(photoId.value, { mould: id }, fresh.value, 'The print, with what gives its scale')
      fresh.value = undefined
    }
    kept.value = id
  }
  /** Nothing is kept when something is missing. */
  async function save(): Promise<void> {
    if (!picture.value || !scale.value || busy.value) return
    trouble.value = ''
    if (standing.value && !standing.value.ok) {
      trouble.value = SCALE_PROBLEM_WORDS[standing.value.code]
      return
    }
    const checked = mouldSchema.safeParse(mouldOfPrint(state, measures, scale.value))
    if (!checked.success) {
      trouble.value = checked.error.issues[0]!.message
      return
    }
    busy.value = true
    await keep(checked.data).catch((error: unknown) => {
      trouble.value = error instanceof Refused ? error.sentence : 'The print could not be kept yet.'
    })
    busy.value = false
  }
  return { save }
}

/** One photo of a print in hand: its scale, what is measured in it, and what is known of the print. */
export const usePrint = defineStore('print', () => {
  const clock = useClock(), state = printState(() => new Date(clock.now).toISOString().slice(0, 10))
  const measures = measuring(state), marks = marking(state)
  return { ...state, ...measures, ...marks, ...takingUp(state, marks), ...opening(state), ...keeping(state, measures) }
})
