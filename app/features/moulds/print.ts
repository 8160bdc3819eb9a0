import { SCALE_PROBLEM_WORDS } from '~core/mould/words'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { combineGauges, type Gauge } from '~core/mould/gauge/gauge'
import {
  ground,
  photoArea,
  photoLength,
  type Camera,
  type Measured,
  type PhotoScale,
  type Pixel,
} from '~core/mould/photo/photo'
import { mouldSchema, type Impression, type LibraryItem, type MouldBody } from '~contract/library'
import { formatPosition } from '~core/units/format'
import { newId, Refused } from '~/sync/api'
import { photoFacts, type PhotoFacts } from '~/features/moulds/photo-facts'
import { keepPhoto, photoAddress, photosOf, shrunk, type SmallPhoto } from '~/sync/photos'
import { useClock } from '../../sync/clock'
import { useLibrary } from '../../sync/library'
import { useSession } from '../../sync/session'

type Mark = NonNullable<Impression['photo']>['marks'][number]

/** Plaster above the ground that lifts whole; half of it is the least (common practice). */
const COVER = 0.025
/** Between a print and its ring, unless that is traced too (engineering guess). */
const RING = 0.04
/** A print's depth before anybody has measured it (engineering guess). */
const DEPTH = 0.015

/** One photo of a print in hand: its scale, what is measured in it, and what is known of the print. */
export const usePrint = defineStore('print', () => {
  const library = useLibrary(), session = useSession(), clock = useClock()
  const picture = shallowRef<{ readonly url: string, readonly width: number, readonly height: number }>()
  const scale = ref<PhotoScale>()
  const marks = ref<Mark[]>([])
  const camera = ref<Camera>({ distance: 0.6, deeper: 0 })
  const blank = () => ({ name: '', place: '', on: new Date(clock.now).toISOString().slice(0, 10), believed: '' })
  const facts = ref(blank())
  /** What the camera wrote beside the photo in hand. It goes into the facts only when it is asked for. */
  const taken = ref<PhotoFacts>({})
  const depth = ref(DEPTH), cover = ref(COVER)
  const trouble = ref('')
  const busy = ref(false)
  const kept = ref<string>()
  let fresh: SmallPhoto | undefined, photoId = ''
  /** The mould that keeps the print in hand, once one does. */
  const item = shallowRef<LibraryItem<'mould'>>()

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

  function clear(): void {
    if (picture.value?.url.startsWith('blob:')) URL.revokeObjectURL(picture.value.url)
    picture.value = undefined
    scale.value = undefined
    marks.value = []
    camera.value = { distance: 0.6, deeper: 0 }
    taken.value = {}
    facts.value = blank()
    depth.value = DEPTH
    cover.value = COVER
    trouble.value = ''
    kept.value = undefined
    fresh = undefined
    item.value = undefined
  }
  /** A share of the picture, in its pixels. */
  const at = (x: number, y: number): Pixel => ({
    x: Math.round(picture.value!.width * x),
    y: Math.round(picture.value!.height * y),
  })

  async function take(file: Blob): Promise<void> {
    trouble.value = ''
    busy.value = true
    try {
      const [small, beside] = await Promise.all([shrunk(file), photoFacts(file)])
      // Another photo of the print in hand loses nothing that is known of it; after one that was kept begins the next.
      const known = kept.value
        ? undefined
        : { facts: facts.value, item: item.value, depth: depth.value, cover: cover.value }
      clear()
      if (known) {
        facts.value = known.facts
        item.value = known.item
        depth.value = known.depth
        cover.value = known.cover
      }
      fresh = small
      photoId = newId()
      taken.value = beside
      picture.value = { url: URL.createObjectURL(small.blob), width: small.width, height: small.height }
      setScale('ruler')
      add('length')
    }
    catch (error) {
      trouble.value = error instanceof Refused ? error.sentence : 'This picture could not be read.'
    }
    busy.value = false
  }
  /** Puts the day and the place that the camera wrote where they can be read and changed. */
  function takeOver(): void {
    const { on, at } = taken.value
    facts.value = {
      ...facts.value,
      ...on && { on },
      ...at && { place: [facts.value.place.trim(), formatPosition(at)].filter(Boolean).join(', ') },
    }
    taken.value = {}
  }
  /** Where the marks of a scale lie until somebody moves them. */
  /** What a ruler or rectangle measures, m. */
  function setScaleSize(size: { readonly length?: number, readonly width?: number }): void {
    if (scale.value) scale.value = { ...scale.value, ...size } as PhotoScale
  }
  function setScale(how: PhotoScale['how']): void {
    scale.value = how === 'ruler'
      ? { how, ends: [at(0.2, 0.85), at(0.6, 0.85)], length: 0.2 }
      : { how, corners: [at(0.3, 0.3), at(0.7, 0.3), at(0.7, 0.7), at(0.3, 0.7)], width: 0.21, length: 0.297 }
  }
  function add(what: Mark['what']): void {
    const n = marks.value.filter(m => m.what === what).length
    const y = 0.4 + 0.08 * (n % 4)
    const name = what === 'length'
      ? (['Length', 'Width'][n] ?? `Length ${n + 1}`)
      : (['The print', 'The ring around it'][n] ?? `Outline ${n + 1}`)
    marks.value = [...marks.value, {
      name,
      what,
      points: what === 'length'
        ? [at(0.25, y), at(0.75, y)]
        : n === 0
          ? [at(0.3, 0.35), at(0.7, 0.35), at(0.7, 0.6), at(0.3, 0.6)]
          : [at(0.2, 0.2), at(0.8, 0.2), at(0.8, 0.78), at(0.2, 0.78)],
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
    if (group >= 0) return change(group, { points: marks.value[group]!.points.map((p, j) => j === index ? to : p) })
    const put = <T extends readonly Pixel[]>(list: T) => list.map((p, j) => j === index ? to : p) as unknown as T
    if (scale.value)
      scale.value = scale.value.how === 'ruler'
        ? { ...scale.value, ends: put(scale.value.ends) }
        : { ...scale.value, corners: put(scale.value.corners) }
  }
  /** One more corner of an outline, in the side it lies nearest to; in the longest side when no place is given. */
  function addCorner(group: number, place?: Pixel): void {
    const { points } = marks.value[group]!
    const sides = points.map((a, j) => ({ j, a, b: points[(j + 1) % points.length]! }))
    const off = ({ a, b }: { a: Pixel, b: Pixel }) => {
      const l2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2
      if (!place) return -l2
      const t = l2 === 0
        ? 0
        : Math.max(0, Math.min(1, ((place.x - a.x) * (b.x - a.x) + (place.y - a.y) * (b.y - a.y)) / l2))
      return Math.hypot(place.x - a.x - t * (b.x - a.x), place.y - a.y - t * (b.y - a.y))
    }
    const { j, a, b } = sides.reduce((best, s) => off(s) < off(best) ? s : best)
    change(group, {
      points: [
        ...points.slice(0, j + 1),
        place ?? { x: Math.round((a.x + b.x) / 2), y: Math.round((a.y + b.y) / 2) },
        ...points.slice(j + 1),
      ],
    })
  }

  /** Outlines named so give the gauge of the ring: the print's and the ring's. */
  const outlines = computed(() => {
    const areas = marks.value.map((m, i) => ({ m, area: measured.value[i]?.value ?? 0 })).filter(x =>
      x.m.what === 'outline' && x.area > 0,
    ).sort((a, b) => b.area - a.area)
    return areas.length === 0 ? undefined : { ring: areas[0]!.area, print: areas[1]?.area }
  })
  const gauge = computed<Gauge | undefined>(() => {
    const o = outlines.value
    if (!o) return undefined
    // With one outline only, it is the print.
    return o.print === undefined
      ? {
          how: 'dam',
          area: (Math.sqrt(o.ring) + 2 * RING) ** 2,
          printArea: o.ring,
          printDepth: depth.value,
          cover: cover.value,
        }
      : { how: 'dam', area: o.ring, printArea: o.print, printDepth: depth.value, cover: cover.value }
  })

  /** Takes up the print that a mould keeps. */
  async function open(mould: string): Promise<void> {
    clear()
    const found = library.items.mould.find(m => m.id === mould), impression = found?.body.impression
    if (!found || !impression) {
      trouble.value = 'This mould keeps no print.'
      return
    }
    item.value = found
    facts.value = { name: found.body.name, place: impression.place, on: impression.on, believed: impression.believed }
    const dam = found.body.gauges?.find(g => g.how === 'dam')
    if (dam?.how === 'dam') {
      depth.value = dam.printDepth
      cover.value = dam.cover
    }
    if (!impression.photo) return
    try {
      const photo = (await photosOf({ mould })).find(p => p.id === impression.photo!.id)
      if (!photo) {
        trouble.value = 'The photo of this print was taken away; what was measured in it is on its mould.'
        return
      }
      photoId = photo.id
      picture.value = { url: photoAddress(photo.id), width: photo.width, height: photo.height }
      scale.value = impression.photo.scale
      marks.value = [...impression.photo.marks]
      camera.value = impression.photo.camera ?? { distance: 0.6, deeper: 0 }
    }
    catch (error) {
      trouble.value = error instanceof Refused ? error.sentence : 'The photo could not be fetched.'
    }
  }

  /**
   * Keeps the print as a mould in the ground, with its photo and what was measured. Nothing is kept when something is
   * missing.
   */
  async function save(): Promise<void> {
    if (!picture.value || !scale.value || busy.value) return
    trouble.value = ''
    if (standing.value && !standing.value.ok) {
      trouble.value = SCALE_PROBLEM_WORDS[standing.value.code]
      return
    }
    const impression: Impression = {
      place: facts.value.place,
      on: facts.value.on,
      believed: facts.value.believed,
      photo: { id: photoId, scale: scale.value, camera: camera.value, marks: marks.value },
    }
    const lengths = measured.value.filter((m, i) => m && marks.value[i]!.what === 'length').map(m => m!.value)
    const long = Math.max(0.01, ...lengths), area = outlines.value?.print ?? outlines.value?.ring
    const width = Math.min(long, area ? area / long : long * 0.4)
    const before = item.value?.body
    const gauges: Gauge[] = [
      ...(before?.gauges ?? []).filter(g => g.how !== 'dam'),
      gauge.value
      ?? {
        how: 'dam',
        area: (long + 2 * RING) * (width + 2 * RING),
        printArea: long * width,
        printDepth: depth.value,
        cover: cover.value,
      },
    ]
    const body: MouldBody = {
      material: 'ground',
      kind: 'print',
      mouth: { shape: 'rectangular', width: width + 2 * RING, length: long + 2 * RING },
      wall: 0.05,
      section: Math.min(1, depth.value + cover.value),
      fragile: true,
      note: '',
      ...before,
      name: facts.value.name,
      impression,
      gauges,
      volume: combineGauges(gauges, session.units),
    }
    const checked = mouldSchema.safeParse(body)
    if (!checked.success) {
      trouble.value = checked.error.issues[0]!.message
      return
    }
    busy.value = true
    try {
      const id = item.value?.id ?? newId()
      await library.save('mould', id, checked.data, item.value?.revision ?? 0)
      item.value = library.items.mould.find(m => m.id === id)
      if (fresh) {
        await keepPhoto(photoId, { mould: id }, fresh, 'The print, with what gives its scale')
        fresh = undefined
      }
      kept.value = id
    }
    catch (error) {
      trouble.value = error instanceof Refused ? error.sentence : 'The print could not be kept yet.'
    }
    busy.value = false
  }
  return {
    picture,
    item,
    scale,
    marks,
    camera,
    facts,
    taken,
    depth,
    cover,
    trouble,
    busy,
    kept,
    standing,
    measured,
    gauge,
    clear,
    take,
    takeOver,
    setScale,
    setScaleSize,
    add,
    change,
    drop,
    move,
    addCorner,
    open,
    save,
  }
})
