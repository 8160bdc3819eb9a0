// @ts-check
import { standIn } from './stand-in.mjs'

/** A stand-in for a sensor of the room's air: `npm run room`. */
const room = { celsius: 19.4, humidity: 0.56, on: true }
const NOISE = { celsius: 0.1, humidity: 0.006 }
/** @param {number} x @param {number} noise @param {number} step */
const shown = (x, noise, step) => Math.round((x + noise * (Math.random() - 0.5)) / step) * step

/** @param {{ celsius?: number, humidity?: number, off?: boolean, on?: boolean }} what */
function act({ celsius, humidity, off, on }) {
  if (typeof celsius === 'number' && celsius > -40 && celsius < 80) room.celsius = celsius
  if (typeof humidity === 'number' && humidity >= 0 && humidity <= 1) room.humidity = humidity
  if (off || on) room.on = on === true
}

standIn({
  name: 'Room sensor',
  port: Number(process.env.ROOM_PORT ?? 4797),
  everyMs: 1000,
  act,
  line: () =>
    room.on
      ? {
          device: 'room',
          celsius: Number(shown(room.celsius, NOISE.celsius, 0.1).toFixed(1)),
          humidity: Number(Math.min(1, shown(room.humidity, NOISE.humidity, 0.01)).toFixed(2)),
        }
      : undefined,
  page:
    `<p><button data-a='{"celsius":20,"humidity":0.5}'>Room</button><button data-a='{"celsius":27,"humidity":0.35}'>Hot and dry</button><button data-a='{"celsius":6,"humidity":0.95}'>Cold and damp</button><button data-a='{"off":true}'>Off</button><button data-a='{"on":true}'>On</button></p>
<script>new EventSource('/readings').onmessage=e=>{const r=JSON.parse(e.data);g.textContent=r.celsius.toFixed(1)+' °C '+Math.round(r.humidity*100)+' %'}</script>`,
})
