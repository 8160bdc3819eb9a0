import { MODEL_PROBLEM_WORDS } from '~core/mould/words'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { FillMoves } from '~core/mould/mesh/fill-moves'
import { FILE_UNITS, unitChoices, type FileUnit } from '~core/mould/mesh/mesh'
import type { Model } from '~core/mould/mesh/model'
import { dot, type Vector } from '~core/mould/mesh/spans'
import { MOST_BYTES } from '~core/mould/mesh/stl'
import type { Opening, TiltSearch, Trapped } from '~core/mould/mesh/trapped-air'
import type { Locked, PullSearch } from '~core/mould/mesh/undercut'
import { fetchMesh, keepMesh } from '~/sync/meshes'
import type { MeshAnswered, MeshAsked, Pouring } from '~/workers/mesh.worker'

type Question = MeshAsked extends infer Q ? Q extends { id: number } ? Omit<Q, 'id'> : never : never

export const SIDES: readonly { readonly id: string, readonly name: string, readonly up: Vector }[] = [
  { id: '+z', name: 'z up, as in the file', up: [0, 0, 1] },
  { id: '-z', name: 'upside down', up: [0, 0, -1] },
  { id: '+y', name: 'y up', up: [0, 1, 0] },
  { id: '-y', name: 'y down', up: [0, -1, 0] },
  { id: '+x', name: 'x up', up: [1, 0, 0] },
  { id: '-x', name: 'x down', up: [-1, 0, 0] },
]

export const BEST = 'best'

/**
 * One model in hand, read from a file: measured, judged for undercuts and for air, all in a worker. Lengths stay in the
 * file's unit until they are shown.
 */
export const useModel = defineStore('model', () => {
  const name = ref('')
  const mesh = shallowRef<Model>()
  const unit = ref<FileUnit>()
  const side = ref('+z')
  const pour = shallowRef<readonly Opening[]>([])
  const vents = shallowRef<readonly Opening[]>([])
  const pull = shallowRef<PullSearch>()
  /** Degrees of draft that are wanted, and along which side it is pulled; the best way unless somebody says another. */
  const draft = ref(3)
  const pulledBy = ref<string>(BEST)
  /** What is locked along the way and with the draft that were chosen, for one piece and for two halves. */
  const locked = shallowRef<{ readonly one: Locked, readonly two: Locked }>()
  const air = shallowRef<Trapped>()
  const tilt = shallowRef<TiltSearch>()
  const moves = shallowRef<FillMoves>()
  const vented = shallowRef<{ readonly vent: Opening, readonly after: Trapped }>()
  const trouble = ref('')
  const working = ref<{ readonly what: string, readonly share: number }>()

  const choices = computed(() => mesh.value ? unitChoices(mesh.value.measures) : [])
  const metres = computed(() => unit.value ? FILE_UNITS[unit.value].metres : undefined)
  const volume = computed(() => mesh.value && metres.value ? mesh.value.measures.volume * metres.value ** 3 : undefined)
  const up = computed<Vector>(() => SIDES.find(s => s.id === side.value)!.up)

  let worker: Worker | undefined
  let asked = 0
  let waiting: { id: number, resolve: (a: MeshAnswered | undefined) => void, what: string } | undefined
  function start(): Worker {
    const made = new Worker(new URL('../../workers/mesh.worker.ts', import.meta.url), { type: 'module' })
    made.onmessage = ({ data }: MessageEvent<MeshAnswered>) => {
      if (data.id !== waiting?.id) return
      if (data.what === 'progress') {
        working.value = { what: waiting.what, share: data.share }
        return
      }
      const { resolve } = waiting
      waiting = undefined
      working.value = undefined
      resolve(data)
    }
    made.onerror = () => {
      trouble.value = 'This model could not be worked out; it may be too large for this device.'
      cancel()
    }
    return made
  }
  /** A newer question ends the one that is being worked on; that one answers undefined. */
  function ask(question: Question, what: string, transfer: Transferable[] = []): Promise<MeshAnswered | undefined> {
    if (waiting) cancel()
    if (!worker) {
      worker = start()
      if (mesh.value && question.what !== 'read')
        worker.postMessage({ id: 0, what: 'hold', positions: mesh.value.positions } satisfies MeshAsked)
    }
    const id = ++asked
    working.value = { what, share: 0 }
    return new Promise((resolve) => {
      waiting = { id, resolve, what }
      worker!.postMessage({ ...question, id } as MeshAsked, transfer)
    })
  }
  function cancel(): void {
    worker?.terminate()
    worker = undefined
    working.value = undefined
    waiting?.resolve(undefined)
    waiting = undefined
  }

  function forget(): void {
    pull.value = undefined
    locked.value = undefined
    pulledBy.value = BEST
    air.value = undefined
    tilt.value = undefined
    moves.value = undefined
    vented.value = undefined
  }
  async function read(file: File): Promise<void> {
    trouble.value = ''
    if (file.size > MOST_BYTES) {
      trouble.value = `A model file is at most ${
        Math.round(MOST_BYTES / 1e6)
      } MB, five million triangles. Reduce it and try again.`
      return
    }
    const bytes = await file.arrayBuffer()
    const answer = await ask({ what: 'read', bytes }, 'Reading the model', [bytes])
    if (answer?.what === 'refused') trouble.value = MODEL_PROBLEM_WORDS[answer.code]
    if (answer?.what !== 'read') return
    const plausible = unitChoices(answer.mesh.measures).filter(c => c.plausible)
    // Only when a single unit makes sense is it taken without asking.
    hold(answer.mesh, file.name, plausible.length === 1 ? plausible[0]!.unit : undefined)
  }
  /** Takes up a piece that was made here, such as a turned profile; its lengths are metres. */
  async function take(positions: Float32Array, called: string): Promise<void> {
    trouble.value = ''
    const answer = await ask({ what: 'take', positions }, 'Reading the model')
    if (answer?.what === 'read') hold(answer.mesh, called, 'm')
  }
  function hold(model: Model, called: string, inUnit: FileUnit | undefined): void {
    forget()
    name.value = called
    mesh.value = model
    pour.value = []
    vents.value = []
    unit.value = inUnit
    openTop()
  }

  /** Keeps the model with a mould; it takes the place of the one that was there. @throws Refused in words. */
  async function keepWith(mould: string): Promise<void> {
    if (!mesh.value || !unit.value) return
    try {
      await keepMesh(
        mesh.value.positions,
        { mould, name: name.value.slice(0, 200) || 'model.stl', unit: unit.value },
        (share) => {
          working.value = { what: 'Keeping the model', share }
        },
      )
    }
    finally {
      working.value = undefined
    }
  }
  /** Takes up the model that a mould has. */
  async function load(mould: string): Promise<void> {
    trouble.value = ''
    try {
      working.value = { what: 'Fetching the model', share: 0 }
      const { kept, file } = await fetchMesh(mould)
      await read(file)
      unit.value = kept.unit
    }
    catch (error) {
      working.value = undefined
      trouble.value = (error as Error).message
    }
  }

  /** How far the piece reaches along a direction, and the middle of what reaches that far. */
  const extent = (direction: Vector) => {
    const { positions, measures: { low, high } } = mesh.value!
    const along = (i: number) =>
      positions[i]! * direction[0] + positions[i + 1]! * direction[1] + positions[i + 2]! * direction[2]
    let most = -Infinity
    for (let i = 0; i < positions.length; i += 3) most = Math.max(most, along(i))
    const flat = most - 1e-4 * Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2])
    let [x, y, z, n] = [0, 0, 0, 0]
    for (let i = 0; i < positions.length; i += 3) {
      if (along(i) < flat) continue
      x += positions[i]!
      y += positions[i + 1]!
      z += positions[i + 2]!
      n++
    }
    return { most, at: [x / n, y / n, z / n] as Vector }
  }
  /** The whole upper face is open, as a mould with its back up: a disc over all of it at its highest level. */
  function openTop(): void {
    if (!mesh.value) return
    const { low, high } = mesh.value.measures
    const middle: Vector = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, (low[2] + high[2]) / 2]
    const rise = extent(up.value).most - dot(middle, up.value)
    setPour([{
      at: [middle[0] + rise * up.value[0], middle[1] + rise * up.value[1], middle[2] + rise * up.value[2]],
      radius: Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]) / 2,
      out: up.value,
      reach: 0,
    }])
  }
  function holeOnTop(radius: number): void {
    if (mesh.value) setPour([{ at: extent(up.value).at, radius, out: up.value }])
  }
  function setPour(openings: readonly Opening[]): void {
    pour.value = openings
    void lookForAir()
  }
  function setVents(openings: readonly Opening[]): void {
    vents.value = openings
    void lookForAir()
  }
  function turn(to: string): void {
    side.value = to
    vents.value = []
    openTop()
  }
  const pouring = (): Pouring => ({ up: up.value, pour: pour.value, vents: vents.value })
  async function lookForAir(): Promise<void> {
    tilt.value = undefined
    moves.value = undefined
    vented.value = undefined
    const answer = await ask({ what: 'air', ...pouring() }, 'Looking for trapped air')
    if (answer?.what === 'air') air.value = answer.air
  }
  async function lookForTilt(): Promise<void> {
    const answer = await ask({ what: 'tilt', ...pouring() }, 'Trying tilts')
    if (answer?.what === 'tilt') tilt.value = answer.tilt
  }
  async function lookForMoves(): Promise<void> {
    const answer = await ask({ what: 'moves', ...pouring() }, 'Trying tips')
    if (answer?.what === 'moves') moves.value = answer.moves
  }
  async function lookForVent(radius: number): Promise<void> {
    const answer = await ask({ what: 'vent', radius, ...pouring() }, 'Trying vents')
    if (answer?.what === 'vent') vented.value = answer.vent
  }
  /** The same along the chosen way with the chosen draft. */
  async function lookAlong(): Promise<void> {
    if (!pull.value) return
    const side = SIDES.find(s => s.id === pulledBy.value)?.up, radians = draft.value * Math.PI / 180
    const one = await ask({ what: 'along', pull: side ?? pull.value.onePiece.pull, draft: radians }, 'Looking along it')
    if (one?.what !== 'along') return
    const two = side
      ? one
      : await ask({ what: 'along', pull: pull.value.twoPart.pull, draft: radians }, 'Looking along it')
    if (two?.what === 'along') locked.value = { one: one.locked, two: two.locked }
  }
  async function lookForPull(): Promise<void> {
    const answer = await ask({ what: 'pull' }, 'Trying ways to pull')
    if (answer?.what !== 'pull') return
    pull.value = answer.pull
    locked.value = { one: answer.pull.onePiece, two: answer.pull.twoPart }
    if (draft.value !== 3) await lookAlong()
  }
  return {
    name,
    mesh,
    unit,
    side,
    up,
    pour,
    vents,
    pull,
    draft,
    pulledBy,
    locked,
    air,
    tilt,
    moves,
    vented,
    trouble,
    working,
    choices,
    metres,
    volume,
    read,
    take,
    keepWith,
    load,
    openTop,
    holeOnTop,
    setPour,
    setVents,
    turn,
    lookForAir,
    lookForTilt,
    lookForMoves,
    lookForVent,
    lookForPull,
    lookAlong,
    cancel,
  }
})
