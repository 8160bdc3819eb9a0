// @ts-check
import { createServer } from 'node:http'

/**
 * Hands each line to a workshop's server too, where one is named: RIPPLES_SERVER with its address, RIPPLES_TOKEN with
 * the secret that Workshop showed. A line that comes while the last is still on its way is left out, not kept.
 * @param {string} name @returns {((line: object) => void) | undefined}
 */
function posting(name) {
  const { RIPPLES_SERVER: server, RIPPLES_TOKEN: token } = process.env
  if (!server || !token) return undefined
  let busy = false, last = ''
  const tell = (/** @type {string} */ outcome) => {
    if (outcome !== last) process.stdout.write(`${name} to ${server}: ${outcome}\n`)
    last = outcome
  }
  return (line) => {
    if (busy) return
    busy = true
    fetch(new URL('/api/readings', server), {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'authorization': `Bearer ${token}` },
      body: JSON.stringify(line),
    }).then(r => tell(r.ok ? 'heard' : `refused (${r.status})`), () => tell('not reached')).finally(() => {
      busy = false
    })
  }
}

/**
 * What the stand-ins for devices share: the protocol of docs/devices.md on loopback, a page to play with, and `POST
 * /act`.
 * @param {{ name: string, port: number, everyMs: number, line: () => object | undefined, act: (what: any) => void,
 *   page: string }} device `line` gives nothing while the device is silent.
 */
export function standIn({ name, port, everyMs, line, act, page }) {
  /** @type {Set<import('node:http').ServerResponse>} */
  const streams = new Set()
  const post = posting(name)
  setInterval(() => {
    const said = line()
    if (!said) return
    for (const s of streams) s.write(`data: ${JSON.stringify(said)}\n\n`)
    post?.(said)
  }, everyMs)
  const html
    = `<!doctype html><html lang="en-GB"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${name} stand-in</title>
<style>body{font:18px system-ui;margin:24px;max-width:32rem}button{font:inherit;padding:.6em 1em;margin:.2em}output{font:700 3rem ui-monospace,monospace;display:block}</style>
<h1>${name} stand-in</h1><output id="g">–</output>${page}
<script>for(const b of document.querySelectorAll('button'))b.onclick=()=>fetch('/act',{method:'POST',body:b.dataset.a})</script>`
  createServer((request, response) => {
    // Pages of this machine may listen; nobody else's.
    const from = request.headers.origin ?? ''
    if (/^https?:\/\/(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(from))
      response.setHeader('access-control-allow-origin', from)
    if (request.method === 'GET' && request.url === '/readings') {
      response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' })
      response.write(`: ${name}\n\n`)
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
    else if (request.method === 'GET' && request.url === '/')
      response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(html)
    else response.writeHead(404).end()
  }).listen(port, '127.0.0.1', () => process.stdout.write(`${name} stands in at http://127.0.0.1:${port}\n`))
}
