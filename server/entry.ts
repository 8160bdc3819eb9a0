import '#nitro-internal-pollyfills'
import { createServer, type RequestListener, type Server } from 'node:http'
import { createServer as createSecureServer, type Server as SecureServer } from 'node:https'
import { toNodeListener } from 'h3'
import { useNitroApp } from 'nitropack/runtime'
import { setupGracefulShutdown, trapUnhandledNodeErrors } from 'nitropack/runtime/internal'
import { shareOrderSchema, type ShareOrder } from '~contract/share'
import { isLoopback, markDoor, type Door } from './auth/door'
import { setShared } from './auth/shared'
import { asReading } from './store/pools'

/**
 * The doors of the server: plain http, on loopback unless it is told otherwise; and, when the process that started it
 * says so, https and plain http on the workshop's network. What each door lets in is decided in server/middleware.
 */
const app = useNitroApp(), answer = toNodeListener(app.h3App)
/** Ports tried after the first, where none was asked for. */
const tries = Number(process.env.NITRO_PORT_TRIES ?? 1)

const through = (door: Door): RequestListener => (request, response) => {
  markDoor(request, door)
  const reads = request.method === 'GET' || request.method === 'HEAD'
  return reads ? asReading(() => answer(request, response)) : answer(request, response)
}

/** Listens at the first of these ports that is free, which is known only by trying. @returns which it was */
async function listen(server: Server | SecureServer, host: string, first: number, most = tries): Promise<number> {
  for (let port = first; ; port++) {
    const fault = await new Promise<NodeJS.ErrnoException | undefined>((done) => {
      server.once('error', done)
      server.listen(port, host, () => {
        server.off('error', done)
        done(undefined)
      })
    })
    const there = server.address()
    if (!fault && there && typeof there === 'object') {
      setupGracefulShutdown(server, app)
      return there.port
    }
    if (fault?.code !== 'EADDRINUSE' || port + 1 >= first + most) throw fault
  }
}

/** Doors at addresses where the workshop stood before it was shared, by address. */
const former = new Map<string, Server>()

/**
 * Phones that knew the workshop over plain http knew it by this machine's addresses and the port of its own door.
 * What they could not send from there is only reached from there, so the same plain door opens there as well, where
 * nobody else listens.
 */
async function openFormer(addresses: readonly string[], port: number): Promise<void> {
  for (const address of addresses.filter(a => !former.has(a))) {
    const server = createServer(through('plain'))
    former.set(address, server)
    await listen(server, address, port, 1).catch(() => former.delete(address))
  }
}

let secure: { readonly server: SecureServer, readonly https: number, readonly plain: number } | undefined

/** Opens the doors on the network; told again, takes up the new certificate while it runs. */
async function share(order: ShareOrder, own: number): Promise<void> {
  const { cert, key, authority, facts, https, plain } = order
  if (!secure) {
    const server = createSecureServer({ cert, key, minVersion: 'TLSv1.2' }, through('shared'))
    secure = {
      server,
      https: await listen(server, https.host, https.port),
      plain: await listen(createServer(through('plain')), plain.host, plain.port),
    }
  }
  else secure.server.setSecureContext({ cert, key, minVersion: 'TLSv1.2' })
  await openFormer(order.numbers, own)
  const ports = { '{https}': String(secure.https), '{plain}': String(secure.plain) }
  const at = (address: string) => address.replace(/\{\w+\}/, p => ports[p as keyof typeof ports])
  const known = { ...facts, addresses: facts.addresses.map(at), install: at(facts.install) }
  setShared(known, authority)
  process.send?.({ shared: known })
}

/** A door that cannot be opened is told to whoever started this, who has the words for it. */
function giveUp(error: NodeJS.ErrnoException): never {
  process.send?.({ fault: { code: error.code ?? '', port: (error as { port?: number }).port } })
  console.error(error.message)
  process.exit(1)
}

async function open(): Promise<void> {
  const host = process.env.NITRO_HOST ?? process.env.HOST ?? '127.0.0.1'
  const first = Number(process.env.NITRO_PORT ?? process.env.PORT ?? 3000)
  const port = await listen(createServer(through(isLoopback(host) ? 'own' : 'elsewhere')), host, first)
  process.on('message', (told) => {
    const order = shareOrderSchema.safeParse((told as { share?: unknown }).share)
    if (order.success) void share(order.data, port).catch(giveUp)
  })
  process.send?.({ listening: { port } })
}

trapUnhandledNodeErrors()
open().catch(giveUp)
