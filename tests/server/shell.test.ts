import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { runInNewContext } from 'node:vm'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { writeServiceWorker } from '../../bin/service-worker'
import { cleanJpeg } from '../../server/photos/jpeg'
import fc from 'fast-check'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'shell-'))
  mkdirSync(join(folder, '_nuxt/fonts'), { recursive: true })
  for (
    const [name, body] of [['_nuxt/a.js', '1'], ['_nuxt/a.js.gz', 'z'], ['_nuxt/fonts/x.woff2', 'f'], [
      'ripples.svg',
      '<svg/>',
    ], ['samples.jpg', 'no']] as const
  ) writeFileSync(join(folder, name), body)
})
afterEach(() => rmSync(folder, { recursive: true }))

type Request = { method: string, url: string, mode: string }
/** Runs the worker as it is served, with stores of its own and a network that can be gone. */
function installed() {
  const listeners = new Map<string, (e: object) => void>(),
    stores = new Map<string, Map<string, string>>(),
    network = { up: true }
  const path = (r: Request | string) => typeof r === 'string' ? r : new URL(r.url).pathname
  const fetched = async (r: Request | string) => {
    if (!network.up) throw new TypeError('no network')
    return `network:${path(r)}`
  }
  const match = async (r: Request | string) => [...stores.values()].map(s => s.get(path(r))).find(Boolean)
  runInNewContext(readFileSync(join(folder, 'sw.js'), 'utf8'), {
    URL,
    location: { origin: 'http://here' },
    setTimeout,
    Promise,
    Response: { error: () => 'error' },
    fetch: fetched,
    skipWaiting: async () => {},
    clients: { claim: async () => {} },
    addEventListener: (kind: string, listener: (e: object) => void) => listeners.set(kind, listener),
    caches: {
      match, keys: async () => [...stores.keys()], delete: async (k: string) => stores.delete(k),
      open: async (k: string) => {
        const own = stores.get(k) ?? new Map<string, string>()
        stores.set(k, own)
        return { addAll: async (list: string[]) => list.forEach(f => own.set(f, `kept:${f}`)) }
      },
    },
  })
  const wait = async (kind: string) => {
    let work: Promise<unknown> | undefined
    listeners.get(kind)!({ waitUntil: (p: Promise<unknown>) => work = p })
    await work
  }
  const ask = async (url: string, mode = 'cors', method = 'GET') => {
    let answer: Promise<unknown> | undefined
    listeners.get('fetch')!({
      request: { method, url: `http://here${url}`, mode },
      respondWith: (p: Promise<unknown>) => answer = p,
    })
    return answer
  }
  return { stores, network, wait, ask }
}

describe('the shell that is kept in the browser', () => {
  it('holds the page, scripts, styles and fonts, and none of what is packed twice or somebody’s', async () => {
    writeServiceWorker(folder)
    const sw = installed()
    await sw.wait('install')
    expect([...[...sw.stores.values()][0]!.keys()]).toEqual([
      '/',
      '/_nuxt/a.js',
      '/_nuxt/fonts/x.woff2',
      '/ripples.svg',
    ])
  })

  it('keeps the door first, and gives it where there is no network', async () => {
    mkdirSync(join(folder, '_door'))
    mkdirSync(join(folder, 'door'))
    for (const [name, body] of [['_door/d.js', '1'], ['door/index.html', 'd'], ['first.js', 'f']] as const)
      writeFileSync(join(folder, name), body)
    writeServiceWorker(folder)
    const sw = installed()
    await sw.wait('install')
    expect([...[...sw.stores.values()][0]!.keys()].slice(0, 4)).toEqual(['/door', '/_door/d.js', '/', '/_nuxt/a.js'])
    sw.network.up = false
    expect(await sw.ask('/door', 'navigate')).toBe('kept:/door')
    expect(await sw.ask('/bench', 'navigate')).toBe('kept:/')
    expect(await sw.ask('/_door/d.js')).toBe('kept:/_door/d.js')
    expect(await sw.ask('/first.js')).toBe('kept:/first.js')
  })

  it('pages come from the network while there is one and from the shell when not; parts from the shell; data, other methods and other places are left alone', async () => {
    writeServiceWorker(folder)
    const sw = installed()
    await sw.wait('install')
    expect(await sw.ask('/bench/7', 'navigate')).toBe('network:/bench/7')
    expect(await sw.ask('/_nuxt/a.js')).toBe('kept:/_nuxt/a.js')
    expect(await sw.ask('/_nuxt/new.js')).toBe('network:/_nuxt/new.js')
    sw.network.up = false
    expect(await sw.ask('/never-opened', 'navigate')).toBe('kept:/')
    for (
      const [url, mode, method] of [['/api/session'], ['/samples.jpg'], ['/', 'navigate', 'POST']] as [
        string,
        string?,
        string?,
      ][]
    ) expect(await sw.ask(url, mode, method)).toBeUndefined()
  })

  it('a new build is another shell; the one before it stays for tabs that are open, older ones go', async () => {
    writeServiceWorker(folder)
    const first = readFileSync(join(folder, 'sw.js'), 'utf8')
    writeFileSync(join(folder, '_nuxt/a.js'), '2')
    writeServiceWorker(folder)
    expect(readFileSync(join(folder, 'sw.js'), 'utf8')).not.toBe(first)
    const sw = installed()
    for (const old of ['shell-20200101', 'shell-20210101', 'somebody-else']) sw.stores.set(old, new Map())
    await sw.wait('install')
    await sw.wait('activate')
    expect([...sw.stores.keys()].filter(k => !/^shell-202[6-9]/.test(k))).toEqual(['shell-20210101', 'somebody-else'])
  })
})

describe('JPEG as it is kept', () => {
  const segment = (
    marker: number,
    data: number[],
  ) => [0xFF, marker, (data.length + 2) >> 8, (data.length + 2) & 255, ...data]
  const byte = fc.integer({ min: 0, max: 255 })
  const frame = segment(0xC2, [8, 0x01, 0x90, 0x02, 0x58, 1, 1, 0x11, 0]),
    scan = [...segment(0xDA, [1, 1, 0, 0, 63, 0]), 9, 9, 0xFF, 0xD9]

  it('no bytes whatever make it throw', () => {
    fc.assert(fc.property(fc.uint8Array({ maxLength: 300 }), (noise) => {
      cleanJpeg(noise)
      cleanJpeg(Uint8Array.from([0xFF, 0xD8, ...noise]))
    }))
  })

  it('whatever was written beside the picture is gone, and cleaning twice is cleaning once', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            marker: fc.constantFrom(0xE1, 0xE2, 0xEB, 0xED, 0xEF, 0xFE),
            data: fc.array(byte, { maxLength: 40 }),
          }),
          { maxLength: 6 },
        ),
        fc.array(byte, { maxLength: 60 }),
        (beside, tail) => {
          const bytes = Uint8Array.from([
            0xFF,
            0xD8,
            ...beside.flatMap(s => segment(s.marker, s.data)),
            ...frame,
            ...scan,
            ...tail,
          ])
          const clean = cleanJpeg(bytes)!
          expect([clean.width, clean.height]).toEqual([600, 400])
          expect([...clean.bytes]).toEqual([0xFF, 0xD8, ...frame, ...scan])
          expect([...cleanJpeg(clean.bytes)!.bytes]).toEqual([...clean.bytes])
        },
      ),
    )
  })

  it('what tells how colours are stored stays', () => {
    const adobe = segment(0xEE, [65, 100, 111, 98, 101, 0, 100, 0, 0, 0, 0, 1])
    expect([...cleanJpeg(Uint8Array.from([0xFF, 0xD8, ...adobe, ...frame, ...scan]))!.bytes]).toEqual([
      0xFF,
      0xD8,
      ...adobe,
      ...frame,
      ...scan,
    ])
  })
})
