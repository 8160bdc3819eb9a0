import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { afterEach, expect, it } from 'vitest'
import { freePort } from '../../bin/cluster.mjs'
import { ROOT } from '../../bin/setup.mjs'

const ended: (() => void)[] = []
afterEach(() => ended.splice(0).forEach(end => end()))

it('goes on answering when nobody reads its log any more', async () => {
  const port = await freePort(), ask = () => fetch(`http://127.0.0.1:${port}/api/session`).then(r => r.status)
  const server = spawn(process.execPath, [
    // An error that nobody caught ends it here, so that it cannot be overlooked.
    '--import',
    'data:text/javascript,process.on("uncaughtExceptionMonitor", () => process.exit(7))',
    join(ROOT, '.output/server/index.mjs'),
  ], {
    stdio: ['ignore', 'pipe', 'pipe'],
    // Without a database every request is a fault, and each is told to the log.
    env: { ...process.env, NODE_ENV: 'production', NITRO_HOST: '127.0.0.1', NITRO_PORT: String(port), NUXT_DATABASE_URL: '' },
  })
  ended.push(() => server.kill('SIGKILL'))
  await expect.poll(() => ask().catch(() => 'not up'), { interval: 50 }).toBe(500)
  server.stdout.destroy()
  server.stderr.destroy()
  for (let i = 0; i < 5; i++) expect(await ask()).toBe(500)
  expect(server.exitCode).toBeNull()
})
