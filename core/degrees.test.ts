import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { cautionWords } from './plan/words'
import { US_CUSTOMARY } from './units/units'

/** The one sentence that shows both on purpose: an example of what can be typed. */
const BOTH = /^temperature: '18 °C or 65 F',$/

const filesOf = (folder: string): string[] => readdirSync(folder).flatMap((name) => {
  const path = join(folder, name)
  return statSync(path).isDirectory() ? filesOf(path) : [path]
})

it('no sentence names degrees of its own: each is written in those of whoever reads it', () => {
  const files = [...filesOf('core'), ...filesOf('app')].filter(f => /\.(ts|vue)$/.test(f) && !f.includes('.test.'))
  const named = files.flatMap(f => readFileSync(f, 'utf8').split('\n').map(l => l.trim())
    .filter(l => /\d °[CF]/.test(l) && !/^(\*|\/\/|\/\*|<!--)/.test(l) && !/\/\*.*°.*\*\/|\/\/.*°/.test(l) && !BOTH.test(l))
    .map(l => `${f}: ${l}`))
  expect(named).toEqual([])
})

it('a caution reads in Fahrenheit where that is chosen', () => {
  expect(cautionWords({ code: 'skin', hotFor: 2100 }, US_CUSTOMARY)).toContain('above 109 °F for about 35 min')
})
