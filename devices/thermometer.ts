import { settingCurve } from '../core/setting/hydration'
import { powderClass, type PowderClassId } from '../core/gypsum/powders'
import { standIn } from './stand-in.mjs'

/**
 * A stand-in for a thermometer whose tip sits in a cast: `npm run thermometer`. It follows a cast that is worked out by
 * the model, from the moment it is told that powder
 * met water; the cast may be faster than its class, and time may run faster than the clock.
 */
interface Cast {
  readonly classId: PowderClassId
  readonly ratio: number
  readonly water: number
  readonly room: number /** m */
  readonly section: number /** Bag's speed over its class. */
  readonly speed: number /** Seconds a second. */
  readonly pace: number /** Seconds since it was wet. */
  readonly since: number
}
const USUAL: Cast = {
  classId: 'gypsum-cement',
  ratio: 0.45,
  water: 18,
  room: 20,
  section: 0.03,
  speed: 1,
  pace: 1,
  since: 0,
}
const NOISE_K = 0.1, UNTIL = 6 * 3600, POINTS = 1440

let cast: {
  readonly facts: Cast
  readonly wetAt: number
  readonly time: readonly number[]
  readonly celsius: readonly number[]
} | undefined
let out = false

function act(what: Partial<Cast> & { readonly wet?: boolean, readonly out?: boolean }): void {
  out = what.out ?? false
  if (!what.wet) return
  const facts = { ...USUAL, ...what }
  const { time, temperature } = settingCurve(
    {
      powder: powderClass(facts.classId),
      ratio: facts.ratio,
      waterTemperature: facts.water,
      roomTemperature: facts.room,
      stir: { tool: 'hand', minutes: 2 },
      stirFrom: 240,
      section: facts.section,
      mould: 'silicone',
      wall: 0.008,
    },
    UNTIL,
    POINTS,
  )
  cast = { facts, wetAt: Date.now() - facts.since * 1000, time, celsius: temperature }
}

function line(): object | undefined {
  if (out) return undefined
  let celsius = cast?.facts.room ?? USUAL.room
  if (cast) {
    // A faster bag goes through the same curve sooner.
    const t = Math.min(UNTIL, (Date.now() - cast.wetAt) / 1000 * cast.facts.pace * cast.facts.speed),
      { time, celsius: read } = cast
    const i = Math.max(1, time.findIndex(x => x >= t)), [from, to] = [time[i - 1]!, time[i]!]
    celsius = read[i - 1]! + (read[i]! - read[i - 1]!) * Math.max(0, Math.min(1, (t - from) / Math.max(1, to - from)))
  }
  return { device: 'thermometer', celsius: Math.round((celsius + NOISE_K * (Math.random() - 0.5)) * 10) / 10 }
}

standIn({
  name: 'Thermometer',
  port: Number(process.env.THERMOMETER_PORT ?? 4796),
  everyMs: 1000,
  line,
  act,
  page:
    `<p><button data-a='{"wet":true}'>Powder meets water</button><button data-a='{"wet":true,"speed":1.5}'>… from a fast bag</button><button data-a='{"wet":true,"pace":60}'>… a minute a second</button><button data-a='{"out":true}'>Unplug</button><button data-a='{}'>Plug in</button></p>
<script>new EventSource('/readings').onmessage=e=>{g.textContent=JSON.parse(e.data).celsius.toFixed(1)+' °C'}</script>`,
})
