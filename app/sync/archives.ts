import { PERSON_HEADER } from '~contract/route-header'
import { actsAs, addressOf, Refused } from './api'

const BROKEN = 'The connection broke before the whole file was sent. Nothing was taken in; send it again.'

/**
 * Sends an archive; what becomes of it is told by `useImports`. An older kind of request, because it tells how much was
 * sent.
 * @param progress is told the share that was sent, 0 to 1 @returns the id of the import @throws Refused in words
 */
export function sendArchive(file: File, signal: AbortSignal, progress: (share: number) => void): Promise<string> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest(), refuse = (sentence: string) => reject(new Refused(sentence, request.status))
    request.upload.onprogress = ({ loaded, total }) => progress(total > 0 ? loaded / total : 0)
    request.onerror = () => refuse(BROKEN)
    request.onabort = () => refuse('Given up; nothing was taken in.')
    request.onload = () => {
      const answer = answered(request.responseText)
      if (request.status === 200 && answer?.id) resolve(answer.id)
      else refuse(answer?.data?.sentence ?? 'The server could not read this file. Nothing was taken in.')
    }
    signal.addEventListener('abort', () => request.abort())
    request.open('POST', addressOf('POST archive', { query: { file: file.name.slice(0, 200) } }))
    request.setRequestHeader('content-type', 'application/zip')
    const acting = actsAs()
    if (acting !== undefined) request.setRequestHeader(PERSON_HEADER, acting)
    request.send(file)
  })
}

function answered(text: string): { readonly id?: string, readonly data?: { readonly sentence?: string } } | undefined {
  try {
    return JSON.parse(text) as object
  }
  catch {
    return undefined
  }
}
