import { proxy, transfer } from 'comlink'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { FillMoves } from '~core/mould/mesh/fill-moves'
import { FILE_UNITS, unitChoices, type FileUnit } from '~core/mould/mesh/mesh'
import type { JacketLayers } from '~core/mould/mesh/jacket'
import type { Model } from '~core/mould/mesh/model'
import type { Vector } from '~core/mould/mesh/spans'
import { MOST_BYTES } from '~core/mould/mesh/stl'
import type { Opening, TiltSearch, Trapped } from '~core/mould/mesh/trapped-air'
import type { Locked, PullSearch } from '~core/mould/mesh/undercut'
import { MODEL_PROBLEM_WORDS } from '~core/mould/words'
import { fetchMesh, keepMesh } from '~/sync/meshes'
import type { MeshWork } from '~/workers/mesh.worker'
import { oneAtATime, type Work } from '~/workers/one-at-a-time'

export const SIDES: readonly { readonly id: string, readonly name: string, readonly up: Vector }[] = [
  { id: '+z', name: 'z up, as in the file', up: [0, 0, 1] },
  { id: '-z', name: 'upside down', up: [0, 0, -1] },
  { id: '+y', name: 'y up', up: [0, 1, 0] },
  { id: '-y', name: 'y down', up: [0, -1, 0] },
  { id: '+x', name: 'x up', up: [1, 0, 0] },
  { id: '-x', name: 'x down', up: [-1, 0, 0] },
]
export const BEST = 'best'
const DRAFT = 3

/** The model in hand and what was found of it. Lengths stay in the file's unit until they are shown. */
function modelState() {
  return {
    name: ref(''),
    mesh: shallowRef<Model>(),
    unit: ref<FileUnit>(),
    side: ref('+z'),
    pour: shallowRef<readonly Opening[]>([]),
    vents: shallowRef<readonly Opening[]>([]),
    pull: shallowRef<PullSearch>(),
    /** Degrees of draft that are wanted, and along which side it is pulled: the best way unless somebody says so. */
    draft: ref(DRAFT),
    pulledBy: ref<string>(BEST),
    /** What is locked along the way and with the draft that were chosen, for one piece and for two halves. */
    locked: shallowRef<{ readonly one: Locked, readonly two: Locked }>(),
    air: shallowRef<Trapped>(),
    tilt: shallowRef<TiltSearch>(),
    moves: shallowRef<FillMoves>(),
    jacket: shallowRef<JacketLayers>(),
    vented: shallowRef<{ readonly vent: Opening, readonly after: Trapped }>(),
    trouble: ref(''),
    working: ref<{ readonly what: string, readonly share: number }>(),
  }
}
type State = ReturnType<typeof modelState>

function derived({ mesh, unit, side }: State) {
  const choices = computed(() => mesh.value ? unitChoices(mesh.value.measures) : [])
  const metres = computed(() => unit.value ? FILE_UNITS[unit.value].metres : undefined)
  const volume = computed(() => mesh.value && metres.value ? mesh.value.measures.volume * metres.value ** 3 : undefined)
  const up = computed<Vector>(() => SIDES.find(s => s.id === side.value)!.up)
  return { choices, metres, volume, up }
}

/** The worker that holds the model, and how far it is with what it was asked. */
function meshDesk({ mesh, trouble, working }: State) {
  const { ask, cancel } = oneAtATime<MeshWork>(
    () => new Worker(new URL('../../workers/mesh.worker.ts', import.meta.url), { type: 'module' }),
    {
      begin: work => void (mesh.value && work.hold({ positions: mesh.value.positions, measures: mesh.value.measures })),
      failed: () => {
        trouble.value = 'This model could not be worked out; it may be too large for this device.'
      },
    },
  )
  let asked = 0
  async function work<A>(
    what: string,
    question: (work: Work<MeshWork>, progress: (share: number) => void) => Promise<A>,
  ): Promise<A | undefined> {
    const mine = ++asked
    let answered = false
    working.value = { what, share: 0 }
    // Progress comes by a way of its own, and may come after the answer.
    const progress = proxy((share: number) => {
      if (mine === asked && !answered) working.value = { what, share }
    })
    const answer = await ask(held => question(held, progress))
    answered = true
    if (mine === asked) working.value = undefined
    return answer
  }
  function stop(): void {
    asked++
    working.value = undefined
    cancel()
  }
  return { work, cancel: stop }
}
type Desk = ReturnType<typeof meshDesk>

/** Where it is poured, and what air that leaves. */
function filling(state: State, desk: Desk, up: { readonly value: Vector }) {
  const { mesh, side, pour, vents, air, tilt, moves, vented } = state
  const pouring = () => ({ up: up.value, pour: pour.value, vents: vents.value })

  async function lookForAir(): Promise<void> {
    tilt.value = undefined
    moves.value = undefined
    vented.value = undefined
    air.value = await desk.work('Looking for trapped air', work => work.air(pouring())) ?? air.value
  }
  async function lookForTilt(): Promise<void> {
    tilt.value = await desk.work('Trying tilts', (work, progress) => work.tilt(pouring(), progress)) ?? tilt.value
  }
  async function lookForMoves(): Promise<void> {
    moves.value = await desk.work('Trying tips', (work, progress) => work.moves(pouring(), progress)) ?? moves.value
  }
  async function lookForVent(radius: number): Promise<void> {
    vented.value = await desk.work('Trying vents', work => work.vent(pouring(), radius))
  }
  async function setPour(openings: readonly Opening[]): Promise<void> {
    pour.value = openings
    await lookForAir()
  }
  async function setVents(openings: readonly Opening[]): Promise<void> {
    vents.value = openings
    await lookForAir()
  }
  async function openTop(): Promise<void> {
    if (!mesh.value) return
    const opening = await desk.work('Looking for trapped air', work => work.openOnTop(up.value))
    if (opening) await setPour([opening])
  }
  async function holeOnTop(radius: number): Promise<void> {
    if (!mesh.value) return
    const opening = await desk.work('Looking for trapped air', work => work.holeOnTop(up.value, radius))
    if (opening) await setPour([opening])
  }
  async function turn(to: string): Promise<void> {
    side.value = to
    vents.value = []
    await openTop()
  }
  return { setPour, setVents, openTop, holeOnTop, turn, lookForAir, lookForTilt, lookForMoves, lookForVent }
}

/** How it comes out of its mould. */
function pulling({ pull, locked, pulledBy, draft }: State, desk: Desk) {
  const along = (way: Vector) =>
    desk.work('Looking along it', work => work.along(way, draft.value * Math.PI / 180))
  /** The same along the chosen way with the chosen draft. */
  async function lookAlong(): Promise<void> {
    if (!pull.value) return
    const side = SIDES.find(s => s.id === pulledBy.value)?.up
    const one = await along(side ?? pull.value.onePiece.pull)
    const two = side || !one ? one : await along(pull.value.twoPart.pull)
    if (one && two) locked.value = { one, two }
  }
  async function lookForPull(): Promise<void> {
    const found = await desk.work('Trying ways to pull', (work, progress) => work.pull(progress))
    if (!found) return
    pull.value = found
    locked.value = { one: found.onePiece, two: found.twoPart }
    if (draft.value !== DRAFT) await lookAlong()
  }
  return { lookAlong, lookForPull }
}

/** What goes around it. */
function jacketing({ jacket }: State, desk: Desk, up: { readonly value: Vector }) {
  /** @param thickness of one layer, in the model's unit */
  async function lookForJacket(thickness: number, layers: number, onTable: boolean): Promise<void> {
    jacket.value = undefined
    jacket.value = await desk.work('Working the layers out', (work, progress) =>
      work.jacket(thickness, layers, onTable ? [...up.value] as unknown as Vector : undefined, progress))
  }
  return { lookForJacket }
}

/** Bringing a model in, from a file, from what was made here, or from its mould. */
function bringing(state: State, desk: Desk, openTop: () => Promise<void>) {
  const { name, mesh, unit, trouble, working } = state
  function hold(model: Model, called: string, inUnit: FileUnit | undefined): void {
    for (const found of [state.pull, state.locked, state.air, state.tilt, state.moves, state.vented, state.jacket])
      found.value = undefined
    state.pulledBy.value = BEST
    state.pour.value = []
    state.vents.value = []
    name.value = called
    mesh.value = model
    unit.value = inUnit
    void openTop()
  }
  /** @param inUnit what its lengths are, where that is known; else it is taken only when a single unit makes sense. */
  async function read(file: File, inUnit?: FileUnit): Promise<void> {
    trouble.value = ''
    if (file.size > MOST_BYTES) {
      const most = Math.round(MOST_BYTES / 1e6)
      trouble.value = `A model file is at most ${most} MB, five million triangles. Reduce it and try again.`
      return
    }
    const bytes = await file.arrayBuffer()
    const answer = await desk.work('Reading the model', work => work.read(transfer(bytes, [bytes])))
    if (answer?.problem) trouble.value = MODEL_PROBLEM_WORDS[answer.problem]
    if (!answer?.model) return
    const plausible = unitChoices(answer.model.measures).filter(c => c.plausible)
    hold(answer.model, file.name, inUnit ?? (plausible.length === 1 ? plausible[0]!.unit : undefined))
  }
  /** Takes up a piece that was made here, such as a turned profile; its lengths are metres. */
  async function take(positions: Float32Array, called: string): Promise<void> {
    trouble.value = ''
    const answer = await desk.work('Reading the model', work => work.take(positions))
    if (answer) hold(answer.model, called, 'm')
  }
  /** Takes up the model that a mould has. */
  async function load(mould: string): Promise<void> {
    trouble.value = ''
    working.value = { what: 'Fetching the model', share: 0 }
    try {
      const { kept, file } = await fetchMesh(mould)
      await read(file, kept.unit)
    }
    catch (error) {
      working.value = undefined
      trouble.value = (error as Error).message
    }
  }
  return { read, take, load }
}

function keeping({ name, mesh, unit, working }: State, desk: Desk, up: { readonly value: Vector }) {
  /** How the piece looks as it stands here, for the pictures of its mould. */
  const likeness = () => desk.work('Drawing it', work => work.likeness([...up.value] as unknown as Vector))
  /** Keeps the model with a mould; it takes the place of the one that was there. @throws Refused in words. */
  async function keepWith(mould: string): Promise<void> {
    if (!mesh.value || !unit.value) return
    const facts = { mould, name: name.value.slice(0, 200) || 'model.stl', unit: unit.value }
    try {
      await keepMesh(mesh.value.positions, facts, (share) => {
        working.value = { what: 'Keeping the model', share }
      })
    }
    finally {
      working.value = undefined
    }
  }
  return { keepWith, likeness }
}

/** One model in hand: measured, judged for undercuts and for air, all beside the page. */
export const useModel = defineStore('model', () => {
  const state = modelState(), facts = derived(state), desk = meshDesk(state)
  const fill = filling(state, desk, facts.up)
  return {
    ...state,
    ...facts,
    ...fill,
    ...pulling(state, desk),
    ...jacketing(state, desk, facts.up),
    ...bringing(state, desk, fill.openTop),
    ...keeping(state, desk, facts.up),
    cancel: desk.cancel,
  }
})
