// @ts-check
import withNuxt from './.nuxt/eslint.config.mjs'
import { TYPED_RULES } from './eslint.screens.config.mjs'

/**
 * Which rooms a room of the core may stand on, itself included. One way only: whoever is named here comes earlier.
 * ARCHITECTURE.md shows the same as a picture.
 */
const CORE = {
  numeric: [],
  units: [],
  gypsum: ['units', 'numeric'],
  setting: ['units', 'numeric', 'gypsum'],
  drying: ['units', 'numeric', 'gypsum'],
  mould: ['units', 'numeric', 'gypsum', 'setting'],
  drawing: ['units', 'mould'],
  plan: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'mould', 'drawing'],
  pour: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'mould', 'drawing', 'plan'],
  forecast: ['units', 'numeric', 'gypsum', 'setting', 'plan', 'pour'],
  bench: ['units', 'gypsum', 'setting', 'mould', 'drawing', 'plan', 'pour', 'forecast'],
  logbook: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'mould', 'plan', 'pour', 'forecast'],
  lab: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'plan'],
  job: ['units', 'numeric', 'gypsum', 'setting', 'mould', 'plan', 'pour', 'door', 'schedule'],
  schedule: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'mould', 'drawing', 'plan', 'pour'],
  practice: ['units', 'numeric', 'gypsum', 'setting', 'drying', 'mould', 'plan', 'pour'],
  lessons: ['units', 'gypsum', 'setting', 'drying', 'practice'],
  door: ['units', 'gypsum', 'setting', 'mould', 'drawing', 'plan'],
  formats: ['units', 'gypsum', 'setting', 'drying', 'mould', 'drawing', 'plan', 'pour', 'logbook', 'job'],
}

const OUTSIDE_CORE = {
  group: ['vue', '#*', 'nuxt*', 'node:*', 'pinia', 'zod', '~*', '**/app/**', '**/server/**', '**/contract/**'],
  message: 'The core is pure: it imports nothing but the core.',
}

const OUTSIDE = {
  contract: {
    group: ['vue', '#*', 'nuxt*', 'node:*', 'pinia', '~demo/*', '**/app/**', '**/server/**'],
    message: 'Contracts import the core and zod only.',
  },
  server: { group: ['vue', 'pinia', '~/*', '**/app/**'], message: 'The server never reaches into the screens.' },
  app: {
    group: ['node:*', 'kysely', 'pg', '~demo/*', '**/server/**'],
    message: 'Screens talk to the server through its routes.',
  },
}

/**
 * @param {string} name @param {string[]} files @param {{ group: string[], message: string }[]} patterns @param
 * {string[]} ignores
 */
function mayNotImport(name, files, patterns, ignores = []) {
  return {
    name: `house/${name}`,
    files,
    ignores: ['**/*.test.ts', ...ignores],
    rules: { 'no-restricted-imports': ['error', { patterns }] },
  }
}

const coreRooms = Object.entries(CORE).map(([room, below]) => {
  const above = Object.keys(CORE).filter(r => r !== room && !below.includes(r))
  const other = {
    group: above.flatMap(r => [`../${r}/**`, `../../${r}/**`]),
    message: `core/${room} stands below that room, or beside it: see eslint.config.mjs and ARCHITECTURE.md.`,
  }
  return mayNotImport(
    `core/${room}`,
    [`core/${room}/**/*.ts`],
    above.length > 0 ? [OUTSIDE_CORE, other] : [OUTSIDE_CORE],
  )
})

const outsideRooms = Object.entries(OUTSIDE)
  .map(([room, pattern]) => mayNotImport(room, [`${room}/**/*.ts`, `${room}/**/*.vue`], [pattern]))

/** What a handler in a template may be: one call or one assignment. */
const HANDLER_LOGIC = [
  'VOnExpression[body.length>1]',
  'VOnExpression :matches(IfStatement, SequenceExpression)',
  'VOnExpression > ExpressionStatement > :matches(LogicalExpression, ConditionalExpression)',
  'VOnExpression > ExpressionStatement > AssignmentExpression > :matches(LogicalExpression, ConditionalExpression).right',
].map(selector => ({ selector, message: 'Logic of a handler belongs in the script, in a function with a name.' }))

const PROJECTS = ['./tsconfig.json', './tsconfig.server.json', './tsconfig.tools.json', './core/tsconfig.json']

/** Rules that need types, for plain files; those of screens: eslint.screens.config.mjs. */
const typed = {
  name: 'house/typed',
  files: ['**/*.ts'],
  ignores: ['nuxt.config.ts'],
  languageOptions: { parserOptions: { project: PROJECTS, tsconfigRootDir: import.meta.dirname } },
  rules: TYPED_RULES,
}

export default withNuxt(
  ...coreRooms,
  ...outsideRooms,
  {
    name: 'house/readable',
    rules: {
      'vue/multi-word-component-names': 'off',
      // The types say it of most, and it took a third of the time of all rules.
      'vue/no-ref-as-operand': 'off',
      'vue/html-self-closing': 'off',
      // A tag stands on one line while it can be read there.
      'vue/max-attributes-per-line': 'off',
      'vue/first-attribute-linebreak': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/html-indent': 'off',
      '@stylistic/max-statements-per-line': ['error', { max: 3 }],
      '@stylistic/max-len': ['error', {
        code: 120,
        ignoreStrings: true,
        ignoreTemplateLiterals: true,
        ignoreRegExpLiterals: true,
        ignoreUrls: true,
        ignoreComments: false,
      }],
      'vue/no-restricted-syntax': ['error', ...HANDLER_LOGIC],
      'no-restricted-syntax': ['error', {
        selector: 'ConditionalExpression > ConditionalExpression > ConditionalExpression',
        message: 'Three conditions in a row are a function with returns, or a table.',
      }],
    },
  },
  typed,
  // Drawings and prose in attributes and tables of words are as long as they are.
  { name: 'house/prose', files: ['**/*.vue'], rules: { '@stylistic/max-len': 'off' } },
  { ignores: ['.data/**', 'docs/**'] },
)
