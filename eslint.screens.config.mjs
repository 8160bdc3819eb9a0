// @ts-check
import plugin from '@typescript-eslint/eslint-plugin'
import parser from '@typescript-eslint/parser'

export const TYPED_RULES = /** @type {const} */ ({
  '@typescript-eslint/no-floating-promises': 'error',
  '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
})

/**
 * The rules that need types, for the scripts of screens as bin/screen-scripts.mjs lays them out. What else is said of
 * a line there is said of the screen itself.
 */
export default [{
  files: ['**/*.ts'],
  linterOptions: { reportUnusedDisableDirectives: 'off' },
  plugins: { '@typescript-eslint': plugin },
  languageOptions: {
    parser,
    parserOptions: { project: '.data/screen-scripts/tsconfig.json', tsconfigRootDir: import.meta.dirname },
  },
  rules: TYPED_RULES,
}]
