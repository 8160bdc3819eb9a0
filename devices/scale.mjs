// @ts-check
import { randomUUID } from 'node:crypto'
import { createServer } from 'node:http'

/**
 * A stand-in for a scale that streams: `node devices/scale.mjs`. It speaks the protocol of docs/devices.md on loopback, as a bridge to a real one would,
 * with flicker, drift, tare, overload, and the habit of switching itself off.
 */
const PORT = Number(process.env.SCALE_PORT ?? 4795)
const TICK_MS = 200, MOST_G = 5000, FLICKER_G = 0.5, DRIFT_G_PER_MINUTE = 0.3, OFF_AFTER_MS = 180_000

const scale = { load: 0, zero: 0, boot: randomUUID(), on: true, changed: Date.now(), drift: 0 }
/** @type {{ grams: number, ticks: number }[]} */
let pouring = []
/** @type {Set<import('node:http').ServerResponse>} */
const streams = new Set()

function reading() {
  const shown = scale.load - scale.zero + scale.drift
  return { device: 'scale', boot: scale.boot, grams: Math.round((shown + FLICKER_G * (Math.random() - 0.5)) * 10) / 10, overload: scale.load > MOST_G }
}
setInterval(() => {
  for (const p of pouring) {
    scale.load += p.grams / p.ticks
    scale.changed = Date.now()
  }
  pouring = pouring.map(p => ({ grams: p.grams - p.grams / p.ticks, ticks: p.ticks - 1 })).filter(p => p.ticks > 0)
  scale.drift += DRIFT_G_PER_MINUTE * TICK_MS / 60_000
  if (scale.on && Date.now() - scale.changed > OFF_AFTER_MS) scale.on = false
  if (!scale.on) return
  const line = `data: ${JSON.stringify(reading())}\n\n`
  for (const s of streams) s.write(line)
}, TICK_MS)

/** What can be done to it: put grams on within seconds (negative takes off), tare, switch off and on. @param {{ put?: number, within?: number, tare?: boolean, off?: boolean, on?: boolean }} act */
function act({ put, within = 0, tare, off, on }) {
  scale.changed = Date.now()
  if (typeof put === 'number' && Number.isFinite(put)) pouring.push({ grams: put, ticks: Math.max(1, Math.round(within * 1000 / TICK_MS)) })
  if (tare) scale.zero = scale.load + scale.drift
  if (off) scale.on = false
  // It shows nothing when it comes on, whatever stands on it.
  if (on) Object.assign(scale, { on: true, boot: randomUUID(), zero: scale.load, drift: 0 })
}

const PAGE = `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Scale stand-in</title>
<style>body{font:18px system-ui;margin:24px;max-width:30rem}button{font:inherit;padding:.6em 1em;margin:.2em}output{font:700 3rem ui-monospace,monospace;display:block}</style>
<h1>Scale stand-in</h1><output id="g">–</output>
<p><button data-a='{"put":640}'>Bucket on</button><button data-a='{"put":-640}'>Bucket off</button></p>
<p><button data-a='{"put":10,"within":1}'>10 g</button><button data-a='{"put":50,"within":2}'>50 g</button><button data-a='{"put":250,"within":5}'>250 g</button><button data-a='{"put":-10,"within":1}'>10 g out</button></p>
<p><button data-a='{"tare":true}'>Tare</button><button data-a='{"off":true}'>Off</button><button data-a='{"on":true}'>On</button></p>
<script>new EventSource('/readings').onmessage=e=>{g.textContent=JSON.parse(e.data).grams.toFixed(1)+' g'};for(const b of document.querySelectorAll('button'))b.onclick=()=>fetch('/act',{method:'POST',body:b.dataset.a})</script>`

createServer((request, response) => {
  // Pages of this machine may listen; nobody else's.
  const from = request.headers.origin ?? ''
  if (/^https?:\/\/(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(from)) response.setHeader('access-control-allow-origin', from)
  if (request.method === 'GET' && request.url === '/readings') {
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
    response.write(': scale\n\n')
    streams.add(response)
    request.on('close', () => streams.delete(response))
  }
  else if (request.method === 'POST' && request.url === '/act') {
    let body = ''
    request.on('data', (part) => {
      body += part
      if (body.length > 1000) request.destroy()
    })
    request.on('end', () => {
      try {
        act(JSON.parse(body))
        response.writeHead(204).end()
      }
      catch {
        response.writeHead(400).end('Not understood.')
      }
    })
  }
  else if (request.method === 'GET' && request.url === '/') response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(PAGE)
  else response.writeHead(404).end()
}).listen(PORT, '127.0.0.1', () => process.stdout.write(`A scale stands in at http://127.0.0.1:${PORT}\n`))
