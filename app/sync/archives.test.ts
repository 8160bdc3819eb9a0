import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { sendArchive } from './archives'

/** A request that is answered by hand. */
class FakeRequest {
  static last: FakeRequest
  status = 0
  responseText = ''
  upload: { onprogress?: (e: { loaded: number, total: number }) => void } = {}
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

  answers(text: string, status = 200) {
    this.status = status
    this.responseText = text
    this.onload?.()
  }
}
beforeEach(() => vi.stubGlobal('XMLHttpRequest', FakeRequest))
afterEach(() => vi.unstubAllGlobals())

function send() {
  const told: number[] = [], giveUp = new AbortController()
  const end = sendArchive(new File(['zip'], 'ours.zip'), giveUp.signal, share => told.push(share))
  return { told, giveUp, end, request: FakeRequest.last }
}

describe('an archive on its way in', () => {
  it('says how much was sent, and under which id it goes on', async () => {
    const { told, end, request } = send()
    request.upload.onprogress!({ loaded: 1, total: 4 })
    request.answers('{"id":"b7"}')
    expect(await end).toBe('b7')
    expect(told).toEqual([0.25])
    expect(request.open).toHaveBeenCalledWith('POST', expect.stringContaining('file=ours.zip'))
  })

  it('refused, or answered by some other program: it says so', async () => {
    const one = send()
    one.request.answers('{"data":{"sentence":"Another file is being brought in."}}', 409)
    await expect(one.end).rejects.toThrow('Another file is being brought in.')
    const two = send()
    two.request.answers('<html>', 502)
    await expect(two.end).rejects.toThrow('The server could not read this file. Nothing was taken in.')
  })

  it('can be given up, and a lost connection is no end', async () => {
    const one = send()
    one.giveUp.abort()
    await expect(one.end).rejects.toThrow(/^Given up/)
    const two = send()
    two.request.onerror!()
    await expect(two.end).rejects.toThrow(/^The connection broke/)
  })
})
