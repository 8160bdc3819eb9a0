import { readdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import SwaggerParser from '@apidevtools/swagger-parser'
import { describe, expect, it } from 'vitest'
import { openApiText } from './openapi'
import { pathOf } from './path'
import { ROUTES } from './routes'
import type { Contract } from './routes/route'

const API = fileURLToPath(new URL('../server/api/', import.meta.url))
const contracts = Object.entries<Contract>(ROUTES)

describe('a route’s contract', () => {
  it('stands for each file of the server, which serves exactly that, and for nothing else', () => {
    const served = readdirSync(API, { recursive: true, encoding: 'utf8' }).filter(f => /\.(get|put|post|patch|delete)\.ts$/.test(f))
      .map((file) => {
        const [, path, method] = /^(.*)\.(\w+)\.ts$/.exec(file)!
        const name = `${method!.toUpperCase()} ${path!.replace(/\/index$/, '').replace(/\[(\w+)\]/g, ':$1')}`
        expect([file, /serve\('([^']+)'/.exec(readFileSync(API + file, 'utf8'))?.[1]]).toEqual([file, name])
        return name
      })
    expect(served.sort()).toEqual(Object.keys(ROUTES).sort())
  })

  it('names each parameter of its path, and says one thing that it takes and one that it gives', () => {
    for (const [name, { params, body, takes, answer, gives }] of contracts) {
      const named = [...name.matchAll(/:(\w+)/g)].map(m => m[1])
      expect([name, Object.keys(params?.shape ?? {}).sort()]).toEqual([name, named.sort()])
      expect([name, !(body && takes), Boolean(answer) !== Boolean(gives)]).toEqual([name, true, true])
      if (/^(GET|DELETE)/.test(name)) expect([name, body, takes]).toEqual([name, undefined, undefined])
    }
  })

  it('lets nobody who may only look change anything, and strangers only in by the doors', () => {
    const changing = contracts.filter(([name]) => !name.startsWith('GET '))
    // One's own account and session are one's own, whatever one may do in the workshop.
    const ofOnesOwn = /^\w+ (account|session)\b/
    expect(changing.filter(([name, c]) => c.role === 'viewer' && !ofOnesOwn.test(name)).map(([name]) => name)).toEqual([])
    expect(contracts.filter(([, c]) => c.role === 'anyone').map(([name]) => name)).toEqual([
      'GET session',
      'POST session',
      'POST session/passkey/asked',
      'POST session/passkey',
      'DELETE session',
      'POST owner',
      'POST demo-entrance',
      'GET tickets/:token',
      'POST tickets/:token',
      'GET wall/:token',
      'GET wall/:token/live',
      'GET calendar/:file',
      'POST readings',
      'POST seat', 'GET seat', 'DELETE seat', 'GET seat/live', 'PUT seat/doing', 'POST seat/results', 'POST seat/kit',
      'POST seat/events',
    ])
  })

  it('is found at its path, whatever stands in its parameters', () => {
    expect(pathOf('plans/:id/sheet', { id: 'a b/..' })).toBe('/api/plans/a%20b%2F../sheet')
    expect(pathOf('pours', {}, { find: 'ü&', facts: ['a:1', 'b:2'], after: undefined })).toBe(
      '/api/pours?find=%C3%BC%26&facts=a%3A1&facts=b%3A2',
    )
  })
})

describe('the description of the interface', () => {
  const text = readFileSync(fileURLToPath(new URL('../docs/openapi.json', import.meta.url)), 'utf8')

  it('is as the contracts are now: npm run openapi writes it', () => {
    expect(text).toBe(openApiText())
  })

  it('is OpenAPI as a library of others reads it', async () => {
    const read = await SwaggerParser.validate(JSON.parse(text) as never)
    const operations = Object.values(read.paths!).flatMap(path => Object.keys(path!))
    expect(operations).toHaveLength(contracts.length)
  })
})
