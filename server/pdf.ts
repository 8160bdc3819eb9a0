import { setResponseHeaders, type H3Event } from 'h3'
import { askedAt } from './asked-at'
import { labelsPdf } from './formats/labels'
import type { Label } from '~core/formats/labels'

/** Where a label's code leads. */
const labelAddress = (event: H3Event) =>
  `${askedAt(event)?.origin ?? ''}/l/`

/** Answers with labels as a file to print. */
export async function sendLabels(event: H3Event, labels: readonly Label[], title: string): Promise<Buffer> {
  const pdf = await labelsPdf(labels, labelAddress(event), title)
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': 'inline; filename="labels.pdf"',
    'cache-control': 'no-store',
    'vary': 'cookie',
  })
  return Buffer.from(pdf)
}
