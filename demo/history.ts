import { castBody } from '~core/drying/expected'
import { dryingOf } from '~core/drying/cast'
import type { DefectId } from '~core/pour/defects'
import type { Happening, Instant, Verdict } from '~core/pour/events'
import { castsOf, stepsOf, type FrozenRun, type RunCast } from '~core/plan/run'
import { needsScale } from '~core/gypsum/schools'
import type { SentEvent } from '~contract/pour'
import type { Chance } from './random'

/** How far a demo pour has come. */
export type Progress = 'setting' | 'opened' | 'drying' | 'finished'
type TroubleKind = 'too-thin' | 'over-stirred' | 'hurried' | 'short'

export interface Telling {
  readonly wetAt: Instant
  readonly progress: Progress
  readonly trouble?: { readonly kind: TroubleKind, /** Of the casts, the last ones. */ readonly share: number }
}

const HOUR = 3_600_000

const TROUBLE: Record<TroubleKind, { verdict: Verdict, defects: readonly DefectId[], note: string }> = {
  'too-thin': { verdict: 'second', defects: ['soft'], note: 'Chalky at the edges; the jug was misread.' },
  'over-stirred': { verdict: 'second', defects: ['surface-bubbles', 'layer-line'], note: 'Thickened while pouring.' },
  'hurried': { verdict: 'waste', defects: ['broken-edge'], note: 'Opened while still warm.' },
  'short': { verdict: 'waste', defects: ['short'], note: 'Mix ran out at the last one.' },
}

type Say = (at: Instant, happening: Happening, batch?: number) => void

/** From readying to clean-up, batch by batch. @returns when each batch met water. */
function tellMixing(run: FrozenRun, telling: Telling, c: Chance, say: Say): Instant[] {
  const wobble = (s: number) => s * 1000 * Math.exp(0.12 * c.normal())
  const thin = telling.trouble?.kind === 'too-thin' ? 1.09 : 1
  const slow = telling.trouble?.kind === 'over-stirred' ? 1.9 : 1
  let at = telling.wetAt - 360_000
  const wetAt: Instant[] = []
  for (const step of stepsOf(run)) {
    const { steps, mix } = run.batches[step.batch]!
    if (step.starts === 'wet') {
      if (step.batch === 0) at = telling.wetAt
      wetAt[step.batch] = at
    }
    say(at, { kind: 'stage', data: { stage: step.stage } }, step.batch)
    const lengths: Partial<Record<typeof step.stage, number>> = {
      'ready': 180, 'weigh': 150, 'sift': steps.sifted.value, 'soak': steps.soaked.value - steps.sifted.value,
      'stir': (steps.stirred.value - steps.soaked.value) * slow, 'fill': steps.pouring, 'clean-up': 300,
    }
    const length = wobble(lengths[step.stage] ?? 0)
    if (step.stage === 'weigh') {
      const scale = needsScale(run.plan.school)
      say(at + 60_000, {
        kind: 'weighed',
        data: { what: 'water', mass: mix.water * thin * (1 + 0.006 * c.normal()), how: scale ? 'scale' : 'jug' },
      }, step.batch)
      if (scale)
        say(at + 0.9 * length, {
          kind: 'weighed',
          data: { what: 'powder', mass: mix.powder * (1 + 0.006 * c.normal()), how: 'scale' },
        }, step.batch)
    }
    if (step.stage === 'sift' && run.plan.school === 'saturation')
      say(at + 0.9 * length, { kind: 'mark', data: { sign: 'islands' } }, step.batch)
    if (step.stage === 'fill') {
      const casts = castsOf(run).filter(x => x.batch === step.batch)
      casts.forEach((cast, i) =>
        say(at + length * (i + 0.8) / casts.length, { kind: 'filled', data: { cast: cast.id } }, step.batch),
      )
    }
    if (step.stage === 'clean-up')
      say(at + 0.6 * length, {
        kind: 'leftover',
        data: { where: ['overflow', 'overflow', 'bin', 'none'][Math.floor(4 * c.next())] as 'bin' },
      }, step.batch)
    at += length
  }
  return wetAt
}

/** One of a pour is weighed as it dries, at its own pace; what is meant to stay damp is wrapped. */
function tellDrying(run: FrozenRun, cast: RunCast, openedAt: Instant, c: Chance, say: Say): void {
  const { plan } = run, { mould } = cast, air = { celsius: plan.roomTemperature, humidity: 0.55 }
  const keptDamp = run.drying[mould.id] === undefined
  say(openedAt + 900_000, {
    kind: 'placed',
    data: { cast: cast.id, place: keptDamp ? 'damp' : mould.material === 'ground' ? 'board' : 'rack', air },
  })
  if (keptDamp) return
  const volume = mould.volume.value * Math.exp(0.03 * c.normal())
  const body = castBody(run.batches[cast.batch]!.mix, { volume, section: mould.section })
  const drying = dryingOf(body, [{ place: 'rack', air, from: 0 }], { speed: Math.exp(0.3 * c.normal()), dryFace: 1 })
  for (const hours of [0.4, 11, 23, 47])
    say(openedAt + hours * HOUR, {
      kind: 'cast-weighed',
      data: { cast: cast.id, mass: Math.round(1000 * (body.dryMass + drying.water(hours * 3600))) / 1000 },
    })
}

/** Opening, judging, drying. */
function tellCasts(run: FrozenRun, telling: Telling, wetAt: readonly Instant[], c: Chance, say: Say): void {
  const casts = castsOf(run)
  casts.forEach((cast, i) => {
    const { open, openEarliest } = run.moments[cast.mould.id]!
    const after = telling.trouble?.kind === 'hurried'
      ? openEarliest.value * 0.8
      : open.from + (0.1 + 0.8 * c.next()) * (open.to - open.from)
    const openedAt = wetAt[cast.batch]! + after * 1000 + i * 40_000
    say(openedAt, { kind: 'opened', data: { cast: cast.id } })
    if (telling.progress === 'opened') return
    const bad = telling.trouble !== undefined && i >= casts.length * (1 - telling.trouble.share)
    const judged = bad
      ? TROUBLE[telling.trouble!.kind]
      : { verdict: 'good' as const, defects: c.next() < 0.12 ? ['surface-bubbles' as const] : [], note: '' }
    say(openedAt + 120_000 + 20_000 * i, {
      kind: 'judged',
      data: { cast: cast.id, ...judged, defects: [...judged.defects] },
    })
    if (i === 0) tellDrying(run, cast, openedAt, c, say)
    if (telling.progress === 'drying' || judged.verdict === 'waste') return
    const drying = run.drying[cast.mould.id]
    say(openedAt + (drying ? drying.value * (1 + 0.3 * c.next()) : 3 * 86_400) * 1000, {
      kind: 'finished',
      data: { cast: cast.id },
    })
  })
}

/**
 * What happened in one pour, made up through the model: every step near its planned length, every sign near its
 * forecast moment,
 * with this pour's own speed. Nothing is later than `until`.
 */
export function tell(run: FrozenRun, telling: Telling, until: Instant, c: Chance, device: string): SentEvent[] {
  const events: SentEvent[] = []
  const say: Say = (at, happening, batch) => {
    if (at <= until)
      events.push(
        {
          ...happening,
          id: c.id(),
          version: 1,
          batch,
          happenedAt: Math.round(at),
          recordedAt: Math.round(at) + 400,
          device,
          deviceSeq: events.length + 1,
        } as SentEvent,
      )
  }
  const speed = Math.exp(0.12 * c.normal())
  const wetAt = tellMixing(run, telling, c, say)
  run.batches.forEach((batch, b) => {
    const moments = run.moments[batch.fills[0]!.mould.id]!
    say(wetAt[b]! + moments.glossGone.value * 1000 * speed, { kind: 'mark', data: { sign: 'gloss-gone' } }, b)
    if (c.next() < 0.7)
      say(wetAt[b]! + moments.warmest.value * 1000 * speed, { kind: 'mark', data: { sign: 'warmest' } }, b)
  })
  if (telling.progress !== 'setting') tellCasts(run, telling, wetAt, c, say)
  return events.sort((a, b) => a.happenedAt - b.happenedAt)
}
