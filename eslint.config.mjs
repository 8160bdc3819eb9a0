// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'

/** Imports run one way: app and server use contract and core; contract uses core; core uses nothing above it. */
function mayNotImport(folder, groups) {
  return {
    name: `house/${folder}`,
    files: [`${folder}/**/*.ts`, `${folder}/**/*.vue`],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-imports': ['error', { patterns: groups.map(([group, message]) => ({ group, message })) }] },
  }
}

export default withNuxt(
  mayNotImport('core', [[[
    'vue',
    '#*',
    'nuxt*',
    'node:*',
    'pinia',
    'zod',
    '~*',
    '**/app/**',
    '**/server/**',
    '**/contract/**',
  ], 'The core is pure: it imports nothing but the core.']]),
  mayNotImport('contract', [[
    ['vue', '#*', 'nuxt*', 'node:*', 'pinia', '~demo/*', '**/app/**', '**/server/**'],
    'Contracts import the core and zod only.',
  ]]),
  mayNotImport('server', [[['vue', 'pinia', '~/*', '**/app/**'], 'The server never reaches into the screens.']]),
  mayNotImport('app', [[
    ['node:*', 'kysely', 'pg', '~demo/*', '**/server/**'],
    'Screens talk to the server through its routes.',
  ]]),
  {
    rules: {
      'vue/multi-word-component-names': 'off',
      'vue/html-self-closing': 'off',
      // A tag stands on one line while it can be read there.
      'vue/max-attributes-per-line': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      '@stylistic/max-statements-per-line': ['error', { max: 3 }],
    },
  },
  { ignores: ['.data/**', 'docs/**'] },
)
