import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import autoImports from 'unimport/unplugin'
import { defineConfig } from 'vitest/config'

const at = (folder: string) => fileURLToPath(new URL(folder, import.meta.url))
const alias = {
  '~': at('./app'), '~core': at('./core'), '~contract': at('./contract'), '~demo': at('./demo'), '~server': at('./server'),
}

/** Waits end as soon as what is waited for is there; these are for a machine that has much else to do. */
const LONG = { testTimeout: 240_000, hookTimeout: 240_000, expect: { poll: { timeout: 60_000 } } }
const setupFiles = 'tests/fixed-seeds.ts'

export default defineConfig({
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'core',
          include: [
            'core/**/*.test.ts', 'contract/**/*.test.ts', 'tests/published/**/*.test.ts', 'app/**/*.test.ts', 'demo/**/*.test.ts',
          ],
          exclude: ['app/**/*.component.test.ts'],
          environment: 'node',
          setupFiles,
          ...LONG,
        },
      },
      {
        resolve: { alias },
        // What Nuxt brings into every component by itself.
        plugins: [vue(), autoImports.vite({ presets: ['vue'], dts: false })],
        test: { name: 'components', include: ['app/**/*.component.test.ts'], environment: 'happy-dom' },
      },
      {
        resolve: { alias },
        test: {
          name: 'server',
          include: ['tests/server/**/*.test.ts'],
          environment: 'node',
          setupFiles,
          globalSetup: 'tests/server/cluster.ts',
          // What tests start makes no backups in anybody’s home.
          env: { BACKUPS: 'off' },
          // Each file has a database of its own.
          maxWorkers: 2,
          ...LONG,
        },
      },
    ],
  },
})
