import { randomUUID } from 'node:crypto'
import { spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { startCluster } from '../../bin/cluster.mjs'
import { BUCKETS, makeIds, MOULDS, planOf, WISHES } from '../../demo/saltmarsh'
import { chance } from '../../demo/random'
import { launch } from '../product'
import { ask, PASSWORD } from './over-http'

/** A disk of its own, which only root can make: elsewhere this is left out. Large enough for an empty cluster. */
const place = mkdtempSync(join(tmpdir(), 'small-disk-')), MEGABYTES = 220
const isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${MEGABYTES}m`, 'tmpfs', place]).status === 0
if (isMounted) chmodSync(place, 0o755)
afterAll(() => {
  if (isMounted) spawnSync('umount', ['-l', place])
})

describe.skipIf(!isMounted)('a disk that fills under a server that runs', () => {
  it('refuses in words, loses nothing it took, and goes on by itself once there is room', async () => {
    const cluster = await startCluster(join(place, 'postgres'))
    cluster.keep()
    const product = await launch(cluster.url(''), { demo: false }), ids = makeIds(chance(5))
    const { cookie } = await ask(product, 'POST', 'owner', {
      body: { workshop: 'Small', name: 'First', email: 'first@example.org', password: PASSWORD },
    })
    const item = (kind: string, id: string, body: object) =>
      ask(product, 'PUT', `library/${kind}/${id}`, { cookie, body: { body, revision: 0 } })
    await item('mould', ids.moulds.lantern, MOULDS.lantern)
    await item('bucket', ids.buckets.bowl, BUCKETS.bowl)
    const plan = { ...planOf(ids, WISHES.lanterns), bag: undefined }, taken: string[] = []
    async function begin(): Promise<{ status: number, sentence?: string | undefined }> {
      const id = randomUUID()
      const { status, body } = await ask(product, 'POST', 'pours', {
        cookie, body: { id, plan, startedAt: Date.now(), device: 'd', deviceSeq: 1, eventId: randomUUID() },
      }).catch(() => ({ status: 0, body: {} as { data?: { sentence?: string } } }))
      if (status === 200) taken.push(id)
      return { status, sentence: body.data?.sentence }
    }
    expect((await begin()).status).toBe(200)

    // Somebody else's file takes all the room there is, and what is written takes the rest.
    const { bavail, bsize } = statfsSync(place)
    writeFileSync(join(place, 'film'), Buffer.alloc(bavail * bsize))
    let refused = await begin()
    for (let i = 0; refused.status === 200 && i < 20_000; i++) refused = await begin()
    expect([503, 507]).toContain(refused.status)
    expect(refused.sentence).toMatch(/no room left on its disk|cannot be reached just now/)
    expect((await fetch(`${product.url}/health`)).status).toSatisfy((s: number) => [200, 503].includes(s))

    rmSync(join(place, 'film'))
    await expect.poll(async () => (await begin()).status, { interval: 500, timeout: 240_000 }).toBe(200)
    const there = (await ask(product, 'GET', 'pours', { cookie })).body as unknown as { id: string }[]
    const missing: string[] = []
    for (const id of taken)
      if (!there.some(p => p.id === id) && (await ask(product, 'GET', `pours/${id}`, { cookie })).status !== 200) missing.push(id)
    expect(missing).toEqual([])
    await product.kill()
    cluster.stop()
  })
})
