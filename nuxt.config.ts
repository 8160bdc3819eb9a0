import { existsSync } from 'node:fs'
import { dirname, resolve } from 'node:path'
import { fileURLToPath, pathToFileURL } from 'node:url'
import { buildDoor } from './bin/door'
import { writeServiceWorker } from './bin/service-worker'
import { DEVICE_ADDRESSES } from './contract/devices'

const core = fileURLToPath(new URL('./core', import.meta.url))
const contract = fileURLToPath(new URL('./contract', import.meta.url))
const demo = fileURLToPath(new URL('./demo', import.meta.url))

/** What app/assets/preset.ts takes of the theme. */
const THEME_PARTS = [
  'badge', 'base', 'button', 'checkbox', 'dialog', 'iconfield', 'inputnumber', 'inputtext', 'popover', 'ripple',
  'select', 'selectbutton', 'textarea', 'togglebutton', 'virtualscroller',
]

/**
 * Modules that do nothing by being loaded. Told so, the bundler leaves out those of which nothing is used; it cannot
 * see it by itself where constants are worked out by calls.
 */
const QUIET = /\/(core|contract)\/|\/date-fns\/|nuxt\/dist\/app\/composables\/|h3-compat/
const leaveOutUnused = {
  name: 'leave-out-unused',
  transform: (code: string, id: string) =>
    QUIET.test(id) ? { code, map: null, moduleSideEffects: false } : undefined,
}

/** What has to be set up before the first schema is made stands with the library itself. */
const SCHEMAS = /\/node_modules\/zod\/|\/contract\/zod\.ts$/
const SHARED_WITH_THREAD = /\/(core|contract|server\/store)\//
/** What reads files that are brought in runs in a thread of its own: server/imports/running.ts. */
const importsThread = {
  name: 'imports-thread',
  buildStart(this: { emitFile: (file: object) => void }) {
    const id = fileURLToPath(new URL('./server/imports/thread.ts', import.meta.url))
    this.emitFile({ type: 'chunk', id, fileName: 'imports.mjs' })
  },
}

/** Whether this is bin/dev.mjs: then the build's own folder stays as it is. */
const working = process.env.NUXT_DEV_FOLDER

/** What is run as it is written while it is worked on, of this house alone: bundling it took a part of each start. */
const AS_WRITTEN = /^(?:(?:core|contract|server\/store)\/|server\/(?:metrics|refused|words|last-used)$)/
const house = fileURLToPath(new URL('./', import.meta.url))
const asWritten = {
  name: 'as-written',
  resolveId: {
    order: 'pre' as const,
    handler(asked: string, from?: string) {
      const named = /^~(core|contract)\//.test(asked) ? fileURLToPath(new URL(`./${asked.slice(1)}`, import.meta.url)) : asked
      const path = named.startsWith('.') && from ? resolve(dirname(from), named) : named
      if (!path.startsWith(house) || !AS_WRITTEN.test(path.slice(house.length))) return null
      return { id: pathToFileURL(existsSync(`${path}.ts`) ? `${path}.ts` : `${path}/index.ts`).href, external: true }
    },
  },
  /** Nitro runs index.mjs in a thread: what reads TypeScript has to be there before what is written in it. */
  generateBundle(this: { emitFile: (file: object) => void }) {
    const source = `import { register } from '${import.meta.resolve('tsx/esm/api')}'\nregister()\nawait import('./server.mjs')\n`
    this.emitFile({ type: 'asset', fileName: 'index.mjs', source })
  },
}

// Rendered in the browser: the product lives behind a sign-in and must open without a network later on.
export default defineNuxtConfig({
  modules: ['@pinia/nuxt', 'nuxt-security', ...working ? [] : ['@nuxt/eslint']],
  ssr: false,
  components: false,
  imports: { autoImport: true, scan: false },
  devtools: { enabled: false },
  app: {
    head: {
      title: 'Nine Ripples',
      htmlAttrs: { lang: 'en-GB' },
      meta: [
        { name: 'viewport', content: 'width=device-width, initial-scale=1' },
        { name: 'theme-color', content: '#23292e' },
        { name: 'description', content: 'Measures, times and remembers for people who cast plaster.' },
      ],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/ripples.svg' }, {
        rel: 'manifest',
        href: '/app.webmanifest',
      }, { rel: 'apple-touch-icon', href: '/icon-192.png' }],
      // A stranger is sent to the door before anything is drawn.
      script: [{ src: '/first.js' }],
    },
    spaLoaderTag: 'div',
  },
  css: [
    '@fontsource-variable/archivo/wdth.css',
    '@fontsource-variable/martian-mono/wdth.css',
    '~/assets/tokens.css',
    '~/assets/base.css',
  ],
  runtimeConfig: {
    databaseUrl: '',
    /** A copy of it that is read for what no bench waits for: docs/operate.md. */
    replicaUrl: '',
    /** Databases besides the first in which workshops may have their records, by name: docs/operate.md. */
    homes: '',
    demoMode: false,
    // Tests ask that every answer be held against its contract; the development server always does.
    public: { checkAnswers: false },
    /** What secrets in the database are sealed with. */
    serverKey: '',
    /** Asked of a first owner who comes over the network. */
    ownerCode: '',
    /** Proxies whose word for where a request comes from is believed, as addresses or ranges. */
    trustedProxy: '',
    /** Several workshops, each opened by an invitation. */
    many: false,
  },
  buildDir: working ?? '.nuxt',
  alias: { '~core': core, '~contract': contract, '~demo': demo },
  routeRules: {
    // A whole workshop is larger than any other request, and is counted as it comes.
    '/api/archive': { security: { requestSizeLimiter: false } },
    // What a browser holds for an old address goes from page to page: each has to know the other.
    '/install': {
      security: { headers: { crossOriginOpenerPolicy: 'unsafe-none', contentSecurityPolicy: { 'script-src': ['\'self\''] } } },
    },
    '/hand-over': { security: { headers: { crossOriginOpenerPolicy: 'unsafe-none' } } },
  },
  experimental: {
    // A screen's code is fetched when it is opened: the landing screen stays light.
    defaults: { nuxtLink: { prefetch: false } },
    // The development server needs this of this Vite.
    viteEnvironmentApi: true,
    // Nothing is rendered on the server and taken over, and a newer build is told of by the stream.
    payloadExtraction: false,
    renderJsonPayloads: false,
    appManifest: false,
    checkOutdatedBuildInterval: false,
  },
  compatibilityDate: '2026-11-01',
  nitro: {
    compressPublicAssets: true,
    typescript: { strict: true },
    esbuild: { options: { target: 'es2022' } },
    // While it is worked on, the first page matters more than a lean bundle.
    ...!working && { entry: fileURLToPath(new URL('./server/entry.ts', import.meta.url)) },
    rollupConfig: {
      // What that thread shares with the server is no part of the server: nothing starts by being loaded there.
      output: working ? { entryFileNames: 'server.mjs' } : { manualChunks: id => SHARED_WITH_THREAD.test(id) ? 'workshop' : undefined },
      plugins: working ? [asWritten] : [importsThread],
      ...working && { treeshake: false },
    },
    ...working && { sourceMap: false, devServer: { watch: ['core', 'contract', 'server/store'] } },
    alias: { '~core': core, '~contract': contract, '~demo': demo },
  },
  vite: {
    plugins: working ? [] : [leaveOutUnused],
    build: {
      assetsInlineLimit: 0,
      // Many crumbs cost a phone more than their bytes: each is asked for by a tag of its own. Larger ones would hold
      // what a page does not need.
      rollupOptions: { output: { experimentalMinChunkSize: 2500, manualChunks: id => SCHEMAS.test(id) ? 'schemas' : undefined } },
    },
    // Named here, they are made ready while the server still starts; found one by one, each would load the page anew.
    optimizeDeps: {
      include: [
        'vue',
        'pinia',
        'zod',
        'idb',
        'date-fns',
        '@vueuse/core',
        '@tanstack/vue-virtual',
        'papaparse',
        'chart.js',
        'three',
        'marked',
        'exifr',
        'primevue/config',
        'zod/v4/locales/en.js',
        'comlink',
        '@primeuix/themes',
        ...THEME_PARTS.map(p => `@primeuix/themes/aura/${p}`),
        ...[
          'button', 'select', 'selectbutton', 'inputtext', 'inputnumber', 'textarea', 'checkbox', 'dialog', 'popover',
        ].map(p => `primevue/${p}`),
      ],
    },
    server: { warmup: { clientFiles: ['./pages/sign-in.vue'] } },
    worker: { format: 'es' },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  telemetry: false,
  hooks: {
    // After the built files lie in their folder, before the server takes note of what is there.
    'nitro:build:public-assets': async (nitro) => {
      if (nitro.options.dev) return
      await buildDoor(nitro.options.output.publicDir)
      writeServiceWorker(nitro.options.output.publicDir)
    },
    'build:manifest': (manifest) => {
      for (const chunk of Object.values(manifest)) {
        chunk.dynamicImports = []
        chunk.prefetch = false
      }
    },
  },
  eslint: { config: { stylistic: { braceStyle: 'stroustrup', quotes: 'single', semi: false } } },
  security: {
    headers: {
      contentSecurityPolicy: {
        'default-src': ['\'self\''],
        'script-src': ['\'self\'', '\'nonce-{{nonce}}\'', '\'strict-dynamic\''],
        'style-src': ['\'self\'', '\'unsafe-inline\''],
        'img-src': ['\'self\'', 'data:', 'blob:'],
        'font-src': ['\'self\''],
        // Besides its own server only what streams at the bench, on this machine: docs/devices.md.
        'connect-src': ['\'self\'', ...Object.values(DEVICE_ADDRESSES)],
        'worker-src': ['\'self\''],
        'object-src': ['\'none\''],
        'base-uri': ['\'none\''],
        'form-action': ['\'self\''],
        'frame-ancestors': ['\'none\''],
        'upgrade-insecure-requests': false,
      },
      // Served on loopback over plain http: there is nothing to upgrade to.
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
      permissionsPolicy: {
        'fullscreen': ['self'],
        'screen-wake-lock': ['self'],
        'camera': [],
        'microphone': ['self'],
        'geolocation': [],
      },
    },
    corsHandler: false,
    rateLimiter: false,
    requestSizeLimiter: { maxRequestSizeInBytes: 1_000_000, maxUploadFileRequestInBytes: 1_000_000, throwError: true },
    xssValidator: false,
  },
})
