import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { fileURLToPath } from 'node:url'
import { keptAuthority, makeLeaf } from '../bin/authority.mjs'
import { freePort } from '../bin/cluster.mjs'
import type { ShareFacts, ShareOrder } from '../contract/share'

const ENTRY = join(resolve(fileURLToPath(new URL('..', import.meta.url))), '.output/server/index.mjs')
/** An address of this machine that stands for the workshop's network. */
export const HOST = '127.0.0.2'
export const OWNER_CODE = 'ABCD2345'
const NAME = 'bench-under-test.local'

/** A server that is shared, told to by the test as bin/start would. */
export interface Shared {
  /** On this machine itself. */
  readonly url: string
  readonly facts: ShareFacts
  /** The authority, PEM. */
  readonly root: string
  /** Another certificate, as when the address changes. */
  renew(): Promise<ShareFacts>
  kill(): void
}

/** @param demo whether it is one of the demo, which its shared address must not show */
export async function launchShared(databaseUrl: string, demo = false): Promise<Shared> {
  const port = await freePort(), authority = await keptAuthority(join(mkdtempSync(join(tmpdir(), 'ripples-share-')), 'share'), NAME)
  const child: ChildProcess = spawn(process.execPath, [ENTRY], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env, NODE_ENV: 'production', NITRO_HOST: '127.0.0.1', NITRO_PORT: String(port),
      NUXT_DATABASE_URL: databaseUrl, NUXT_OWNER_CODE: OWNER_CODE, NUXT_MANY: 'true', NUXT_DEMO_MODE: String(demo),
      NUXT_SERVER_KEY: 'only for tests: thirty-two characters and more', NUXT_PUBLIC_CHECK_ANSWERS: 'true',
    },
  })
  const heard = () => new Promise<{ shared: ShareFacts }>(done => child.once('message', done as (m: unknown) => void))
  await heard()
  async function renew(): Promise<ShareFacts> {
    const { cert, key } = await makeLeaf(authority, [HOST]), door = { host: HOST, port: 0 }
    const order: ShareOrder = {
      cert, key, authority: authority.root, numbers: [HOST], https: door, plain: door,
      facts: { addresses: [`https://${HOST}:{https}`], install: `http://${HOST}:{plain}/install`, fingerprint: 'AB:CD' },
    }
    const answer = heard()
    child.send({ share: order })
    return (await answer).shared
  }
  const facts = await renew()
  return { url: `http://127.0.0.1:${port}`, facts, root: authority.root, renew, kill: () => void child.kill('SIGKILL') }
}
