// @ts-check
import { randomUUID } from 'node:crypto'
import { standIn } from './stand-in.mjs'

/**
 * A stand-in for a scale that streams: `npm run scale`. Flicker, drift, tare, overload, and the habit of switching
 * itself off.
 */
const TICK_MS = 200, MOST_G = 5000, FLICKER_G = 0.5, DRIFT_G_PER_MINUTE = 0.3, OFF_AFTER_MS = 180_000

const scale = { load: 0, zero: 0, boot: randomUUID(), on: true, changed: Date.now(), drift: 0 }
/** @type {{ grams: number, ticks: number }[]} */
let pouring = []

function line() {
  for (const p of pouring) {
    scale.load += p.grams / p.ticks
    scale.changed = Date.now()
  }
  pouring = pouring.map(p => ({ grams: p.grams - p.grams / p.ticks, ticks: p.ticks - 1 })).filter(p => p.ticks > 0)
  scale.drift += DRIFT_G_PER_MINUTE * TICK_MS / 60_000
  if (scale.on && Date.now() - scale.changed > OFF_AFTER_MS) scale.on = false
  if (!scale.on) return undefined
  const shown = scale.load - scale.zero + scale.drift
  return {
    device: 'scale',
    boot: scale.boot,
    grams: Math.round((shown + FLICKER_G * (Math.random() - 0.5)) * 10) / 10,
    overload: scale.load > MOST_G,
  }
}

/**
 * What can be done to it: put grams on within seconds (negative takes off), tare, switch off and on. @param {{ put?:
 * number, within?: number, tare?: boolean, off?: boolean, on?: boolean }} what
 */
function act({ put, within = 0, tare, off, on }) {
  scale.changed = Date.now()
  if (typeof put === 'number' && Number.isFinite(put))
    pouring.push({ grams: put, ticks: Math.max(1, Math.round(within * 1000 / TICK_MS)) })
  if (tare) scale.zero = scale.load + scale.drift
  if (off) scale.on = false
  // It shows nothing when it comes on, whatever stands on it.
  if (on) Object.assign(scale, { on: true, boot: randomUUID(), zero: scale.load, drift: 0 })
}

standIn({
  name: 'Scale', port: Number(process.env.SCALE_PORT ?? 4795), everyMs: TICK_MS, line, act,
  page: `<p><button data-a='{"put":640}'>Bucket on</button><button data-a='{"put":-640}'>Bucket off</button></p>
<p><button data-a='{"put":10,"within":1}'>10 g</button><button data-a='{"put":50,"within":2}'>50 g</button><button data-a='{"put":250,"within":5}'>250 g</button><button data-a='{"put":-10,"within":1}'>10 g out</button></p>
<p><button data-a='{"tare":true}'>Tare</button><button data-a='{"off":true}'>Off</button><button data-a='{"on":true}'>On</button></p>
<script>new EventSource('/readings').onmessage=e=>{g.textContent=JSON.parse(e.data).grams.toFixed(1)+' g'}</script>`,
})
