import { createServer, request, type IncomingMessage, type ServerResponse } from 'node:http'
import { chance } from '../../demo/random'
import { freePort } from '../../bin/cluster.mjs'

/** What can go wrong on the way between a browser and its server. */
const FAULTS = ['delay', 'cut-before', 'cut-after', 'twice', 'status', 'truncated', 'another'] as const
type Fault = typeof FAULTS[number]

export interface Faulty {
  readonly url: string
  /** How often each happened. */
  readonly count: Readonly<Record<Fault, number>>
  /** Whether everything goes through as it is. */
  calm(is: boolean): void
  close(): Promise<void>
}

interface Whole { readonly status: number, readonly headers: IncomingMessage['headers'], readonly body: Buffer }
const read = async (from: IncomingMessage) => Buffer.concat(await from.toArray() as Buffer[])

/**
 * A way to the product that loses, repeats, delays (and so reorders), cuts off and mixes up requests and answers of its
 * interface; pages and streams go through. @param share of the requests that meet a fault
 */
export async function faultyWay(target: string, seed: number, share = 0.35): Promise<Faulty> {
  const dice = chance(seed), pick = <T>(list: readonly T[]) => list[Math.floor(dice.next() * list.length)]!
  const count = Object.fromEntries(FAULTS.map(f => [f, 0])) as Record<Fault, number>
  const port = await freePort()
  let calm = false, other: Whole | undefined

  function ask(from: IncomingMessage, body: Buffer): Promise<Whole> {
    return new Promise((resolve, reject) => {
      const going = request(new URL(from.url!, target), { method: from.method, headers: from.headers }, (answer) => {
        read(answer).then(b => resolve({ status: answer.statusCode!, headers: answer.headers, body: b }), reject)
      })
      going.once('error', reject)
      going.end(body)
    })
  }
  function give(to: ServerResponse, { status, headers, body }: Whole): void {
    const { 'transfer-encoding': _, ...rest } = headers
    to.writeHead(status, { ...rest, 'content-length': body.length }).end(body)
  }
  function pass(from: IncomingMessage, to: ServerResponse): void {
    const going = request(new URL(from.url!, target), { method: from.method, headers: from.headers }, (answer) => {
      to.writeHead(answer.statusCode!, answer.headers)
      answer.pipe(to)
    })
    going.once('error', () => to.destroy())
    to.once('close', () => going.destroy())
    from.pipe(going)
  }
  async function spoil(fault: Fault, from: IncomingMessage, to: ServerResponse): Promise<void> {
    count[fault]++
    const body = await read(from)
    if (fault === 'cut-before') return void to.destroy()
    if (fault === 'status') return void to.writeHead(pick([404, 429, 500, 502])).end('<html>Not here</html>')
    if (fault === 'delay') await new Promise(done => setTimeout(done, 200 + 1500 * dice.next()))
    if (fault === 'twice') await ask(from, body)
    const answer = await ask(from, body)
    if (fault === 'cut-after') return void to.destroy()
    if (fault === 'another') return give(to, other ?? answer)
    if (fault !== 'truncated') return give(to, answer)
    to.writeHead(answer.status, { 'content-type': 'application/json' })
    to.end(answer.body.subarray(0, answer.body.length / 2))
  }
  const server = createServer((from, to) => {
    const isCall = from.url!.startsWith('/api/') && !/\/live$/.test(from.url!)
    if (!isCall) return pass(from, to)
    const draws = !calm && dice.next() < share
    const work = draws
      ? spoil(pick(FAULTS), from, to)
      : read(from).then(body => ask(from, body)).then((answer) => {
          if (from.method === 'GET') other = answer
          give(to, answer)
        })
    work.catch(() => to.destroy())
  })
  await new Promise<void>(done => server.listen(port, '127.0.0.1', done))
  return {
    url: `http://127.0.0.1:${port}`,
    count,
    calm: (is) => {
      calm = is
    },
    close: () => new Promise((done) => {
      server.close(() => done())
      server.closeAllConnections()
    }),
  }
}
