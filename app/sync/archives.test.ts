import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bringArchive, type ArchiveProgress } from './archives'

/** A request that is answered by hand, piece by piece. */
class FakeRequest {
  static last: FakeRequest
  status = 0
  responseText = ''
  upload: { onprogress?: (e: { loaded: number, total: number }) => void, onload?: () => void } = {}
  onprogress?: () => void
  onload?: () => void
  onerror?: () => void
  onabort?: () => void
  open = vi.fn()
  setRequestHeader = vi.fn()
  send = vi.fn(() => {
    FakeRequest.last = this
  })

  abort() {
    this.onabort?.()
  }

  comes(piece: string, status = 200) {
    this.status = status
    this.responseText += piece
    this.onprogress?.()
  }
}
beforeEach(() => vi.stubGlobal('XMLHttpRequest', FakeRequest))
afterEach(() => vi.unstubAllGlobals())

const restored = { pours: 3, entries: 90, moulds: 1, plans: 1, photos: 0, models: 0 }
function bring() {
  const told: ArchiveProgress[] = [],
    giveUp = new AbortController(),
    end = bringArchive(new Blob(['zip']), giveUp.signal, now => told.push(now))
  return { told, giveUp, end, request: FakeRequest.last }
}

describe('an archive on its way in', () => {
  it('says how much was sent, then how much was read, however the answer is cut; the last line is what came of it', async () => {
    const { told, end, request } = bring()
    request.upload.onprogress!({ loaded: 1, total: 4 })
    request.upload.onload!()
    request.comes('{"read":0.25}\n{"re')
    request.comes('ad":0.5}\n')
    request.comes(`${JSON.stringify({ restored })}\n`)
    request.onload!()
    expect(await end).toEqual(restored)
    expect(told).toEqual([{ doing: 'sending', share: 0.25 }, { doing: 'reading', share: 0 }, {
      doing: 'reading',
      share: 0.25,
    }, { doing: 'reading', share: 0.5 }])
  })

  it.each(
    [
      ['refused before it was read', (r: FakeRequest) =>
        r.comes('{"data":{"sentence":"This is no archive."}}', 422), 'This is no archive.'],
      [
        'refused half way',
        (r: FakeRequest) => r.comes('{"read":0.5}\n{"refused":"Line 7 cannot be read; nothing was taken in."}\n'),
        'Line 7 cannot be read; nothing was taken in.',
      ],
      ['refused in words of some other program', (r: FakeRequest) =>
        r.comes('<html>', 502), 'The server could not read this file. Nothing was taken in.'],
      ['broken off before its last line', (r: FakeRequest) =>
        r.comes('{"read":0.5}\n{"rest'), /^The connection broke/],
    ] as const,
  )('%s: it says so', async (_, answer, sentence) => {
    const { end, request } = bring()
    answer(request)
    request.onload!()
    await expect(end).rejects.toThrow(sentence)
  })

  it('can be given up, and a lost connection is no end', async () => {
    const one = bring()
    one.giveUp.abort()
    await expect(one.end).rejects.toThrow(/^Given up/)
    const two = bring()
    two.request.onerror!()
    await expect(two.end).rejects.toThrow(/^The connection broke/)
  })
})
