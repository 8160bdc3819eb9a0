import { bagSchema, bucketSchema, mouldSchema } from './library'
import { powderClassIdSchema } from './powder-class'
import { planSchema } from './plan'
import { sentEventSchema } from './pour'
import { ROUTES } from './routes'
import { castSummary, pourEvent, pourSummary } from './routes/pour-answers'
import type { Contract } from './routes/route'
import { RUNS } from './versions'
import { z } from './zod'

/**
 * The description of the interface, as OpenAPI 3.1 (https://spec.openapis.org/oas/v3.1.0), written from the contracts.
 * `npm run openapi` writes it to docs/openapi.json; a test holds the file to it.
 */

type Json = Readonly<Record<string, unknown>>

/** What many routes speak of, told once by name. */
const NAMED = z.registry<{ readonly id: string }>()
const NAMES: Readonly<Record<string, z.ZodType>> = {
  Plan: planSchema,
  Mould: mouldSchema,
  Bucket: bucketSchema,
  Bag: bagSchema,
  Entry: sentEventSchema,
  EntryOfSomebody: pourEvent,
  FrozenRun: RUNS.schema,
  PourSummary: pourSummary,
  CastSummary: castSummary,
  PowderClass: powderClassIdSchema,
}
for (const [id, schema] of Object.entries(NAMES)) NAMED.add(schema, { id })

type Named = Record<string, Json>
/**
 * A schema as JSON Schema; what has a name goes among the `named`. What cannot be said there, such as what a transform
 * gives back, is told as anything.
 */
function schemaOf(schema: z.ZodType, io: 'input' | 'output', named: Named): Json {
  const suffix = io === 'input' ? 'Given' : ''
  const { $schema: _, '~standard': __, $defs = {}, ...said } = z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    target: 'draft-2020-12',
    metadata: NAMED as never,
  }) as Json & { readonly $defs?: Named }
  const hoisted = (part: Json) =>
    JSON.parse(JSON.stringify(part).replace(/"#\/\$defs\/(\w+)"/g, `"#/components/schemas/$1${suffix}"`)) as Json
  for (const [id, { id: _, ...part }] of Object.entries($defs)) named[id + suffix] = hoisted(part)
  return hoisted(said)
}

const inJson = (schema: Json) => ({ content: { 'application/json': { schema } } })
const asBytes = (media: string) => ({ content: { [media]: { schema: { type: 'string', format: 'binary' } } } })

/** Each field of a schema, or of either side of a choice, as a parameter. */
function parametersOf(place: 'path' | 'query', schema: z.ZodType | undefined, named: Named): readonly Json[] {
  if (!schema) return []
  const said = schemaOf(schema, 'input', named)
  const sides = (said.anyOf ?? [said]) as readonly {
    readonly properties?: Readonly<Record<string, Json>>
    readonly required?: readonly string[]
  }[]
  const names = [...new Set(sides.flatMap(s => Object.keys(s.properties ?? {})))]
  return names.map(name => ({
    name,
    in: place,
    required: place === 'path' || sides.every(s => s.required?.includes(name)),
    schema: sides.find(s => s.properties?.[name])!.properties![name],
  }))
}

const REFUSAL = {
  type: 'object',
  required: ['data'],
  properties: {
    data: {
      type: 'object',
      required: ['sentence'],
      properties: {
        sentence: { type: 'string' },
        field: { type: 'string', description: 'Where in the request it belongs' },
      },
    },
  },
}
const REFUSED = {
  description: 'Refused, with a sentence that says what to do',
  ...inJson({ $ref: '#/components/schemas/Refusal' }),
}

function operationOf(contract: Contract, named: Named): Json {
  const { role, about, params, query, body, takes, answer, gives } = contract
  const given = takes ? asBytes(takes) : body && inJson(schemaOf(body, 'input', named))
  return {
    'summary': about,
    'x-role': role,
    'security': role === 'anyone' ? [] : [{ session: [] }],
    'parameters': [...parametersOf('path', params, named), ...parametersOf('query', query, named)],
    ...given && { requestBody: { required: true, ...given } },
    'responses': {
      200: { description: 'Done', ...gives ? asBytes(gives) : inJson(schemaOf(answer!, 'output', named)) },
      default: REFUSED,
    },
  }
}

/** @returns the whole description, as it is written to its file. */
function describeInterface(): Json {
  const paths: Record<string, Record<string, Json>> = {}, named: Named = {}
  for (const [name, contract] of Object.entries(ROUTES)) {
    const [method, path] = name.split(' ') as [string, string]
    const address = `/api/${path.replace(/:(\w+)/g, '{$1}')}`
    paths[address] = { ...paths[address], [method.toLowerCase()]: operationOf(contract, named) }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Nine Ripples',
      version: '1',
      description: 'What the server of a workshop answers. Quantities in SI units, but for °C and milliseconds since 1970.',
    },
    paths,
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'nuxt-session' } },
      schemas: { ...named, Refusal: REFUSAL },
    },
  }
}

/** The description as its file holds it: a line for each path and each named schema, so that changes can be read. */
export function openApiText(): string {
  const { paths, components, ...head } = describeInterface()
  const { schemas, ...others } = components as Json
  const lines = (part: unknown) =>
    Object.entries(part as Json).map(([name, value]) => `${JSON.stringify(name)}: ${JSON.stringify(value)}`).join(',\n')
  return `{\n${lines(head)},\n"paths": {\n${lines(paths)}\n},\n"components": {\n${lines(others)},\n"schemas": {\n${
    lines(schemas)
  }\n}\n}\n}\n`
}
