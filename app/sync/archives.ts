import type { Restored, RestoreLine } from '~contract/archive'
import { addressOf, Refused } from './api'

export interface ArchiveProgress { readonly doing: 'sending' | 'reading', /** 0 to 1. */ readonly share: number }

const BROKEN
  = 'The connection broke. If it had been read to its end, the workshop is here when you load this page again; else nothing was taken in.'

/**
 * Sends an archive and follows how it is taken in. An older kind of request, because it tells how much was sent.
 * @throws Refused in words.
 */
export function bringArchive(
  file: Blob,
  signal: AbortSignal,
  progress: (now: ArchiveProgress) => void,
): Promise<Restored> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest(), refuse = (sentence: string) => reject(new Refused(sentence, request.status))
    let read = 0
    /** What came since the last time; a line that is not whole yet waits. */
    function follow(): void {
      if (request.status !== 200) return
      const end = request.responseText.lastIndexOf('\n') + 1,
        lines = request.responseText.slice(read, end).split('\n').filter(Boolean)
      read = end
      for (const line of lines.map(l => JSON.parse(l) as RestoreLine)) {
        if ('read' in line) progress({ doing: 'reading', share: line.read })
        else if ('restored' in line) resolve(line.restored)
        else refuse(line.refused)
      }
    }
    request.upload.onprogress = ({ loaded, total }) =>
      progress({ doing: 'sending', share: total > 0 ? loaded / total : 0 })
    request.upload.onload = () => progress({ doing: 'reading', share: 0 })
    request.onprogress = follow
    request.onerror = () => refuse(BROKEN)
    request.onabort = () => refuse('Given up. Unless it had just come to its end, nothing was taken in.')
    request.onload = () => {
      follow()
      // Nothing happens here once it was taken in or refused above.
      refuse(
        request.status === 200
          ? BROKEN
          : sentenceOf(request.responseText) ?? 'The server could not read this file. Nothing was taken in.',
      )
    }
    signal.addEventListener('abort', () => request.abort())
    request.open('POST', addressOf('POST archive'))
    request.setRequestHeader('content-type', 'application/zip')
    request.send(file)
  })
}

function sentenceOf(answer: string): string | undefined {
  try {
    return (JSON.parse(answer) as { data?: { sentence?: string } }).data?.sentence
  }
  catch {
    return undefined
  }
}
