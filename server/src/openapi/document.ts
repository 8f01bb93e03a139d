import { toJsonSchema } from '@valibot/to-json-schema'
import type * as v from 'valibot'
import { ASSUMPTIONS } from '@pelrin/core'
import { capabilities, fileRoutes, Problem, RIGHTS, type Endpoint, type FileRoute } from '@pelrin/contract'
import { exampleOf, type JsonSchema } from './exampleOf.ts'
import { refusalsOf, type Refusable } from './refusals.ts'

const schemaOf = (schema: v.GenericSchema): JsonSchema => {
  const { $schema: _, ...rest } = toJsonSchema(schema, { errorMode: 'ignore', target: 'draft-2020-12' })
  return rest as JsonSchema
}

const CREATES = {
  name: 'Idempotency-Key',
  in: 'header',
  required: true,
  description: 'A repeated request with the same key is done once and gets the first answer.',
  schema: { type: 'string', minLength: 8, maxLength: 200 },
}
const VERSIONED = {
  name: 'If-Match',
  in: 'header',
  required: true,
  description: 'The version the change starts from.',
  schema: { type: 'string' },
}
const QUEUED = {
  name: 'Pelrin-Person',
  in: 'header',
  required: false,
  description: 'Who said it, where the device has changed hands since; must have worked on it.',
  schema: { type: 'string', format: 'uuid' },
}

function parametersOf(endpoint: Endpoint): object[] {
  const found: object[] = []
  for (const [where, schema] of [
    ['path', endpoint.params],
    ['query', endpoint.query],
  ] as const) {
    if (!schema) continue
    const { properties = {}, required = [] } = schemaOf(schema)
    for (const [name, property] of Object.entries(properties))
      found.push({ name, in: where, required: where === 'path' || required.includes(name), schema: property })
  }
  if (endpoint.creates === true) found.push(CREATES)
  if (endpoint.versioned === true) found.push(VERSIONED)
  if (endpoint.queued === true) found.push(QUEUED)
  return found
}

const namesIn = (path: string): string[] => [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!)
const addressOf = (path: string): string => `/api/v1${path.replace(/:(\w+)/g, '{$1}')}`

/** What every answer carries beside its body. */
const HEADERS = {
  'X-Request-Id': { description: 'Names the request in the log.', schema: { type: 'string', format: 'uuid' } },
}
const ETAG = { ETag: { description: 'The version of the row, for `If-Match`.', schema: { type: 'string' } } }

/** What an operation has whatever it takes and gives: who may, and how it is refused. */
const whoever = (access: Endpoint['access'], refusable: Refusable) => ({
  ...(access === 'anyone' ? { security: [] } : { description: `For: ${RIGHTS[access].join(', ')}.` }),
  refusals: refusalsOf(refusable),
})

function operationOf(endpoint: Endpoint, tag: string): object {
  const parameters = parametersOf(endpoint)
  const { refusals, ...who } = whoever(endpoint.access, {
    anyone: endpoint.access === 'anyone',
    names: endpoint.params !== undefined,
    told: endpoint.body !== undefined || endpoint.query !== undefined,
    body: endpoint.body !== undefined,
    creates: endpoint.creates === true,
    versioned: endpoint.versioned === true,
    writes: endpoint.method !== 'GET',
  })
  const body = endpoint.body && schemaOf(endpoint.body)
  const result = endpoint.result && schemaOf(endpoint.result)
  return {
    operationId: endpoint.name,
    tags: [tag],
    summary: endpoint.summary,
    ...who,
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: body, example: exampleOf(body) } },
          },
        }
      : {}),
    responses: {
      ...(result
        ? {
            200: {
              description: 'Done',
              headers: { ...HEADERS, ...(result.required?.includes('version') ? ETAG : {}) },
              content: { 'application/json': { schema: result } },
            },
          }
        : { 204: { description: 'Done', headers: HEADERS } }),
      ...refusals,
    },
  }
}

const FILE = { type: 'string', contentEncoding: 'binary' } as const

function fileOperationOf({ takes, asks = {}, ...route }: FileRoute): object {
  const { refusals, ...who } = whoever(route.access, {
    anyone: false,
    names: route.path.includes(':'),
    told: takes !== undefined || Object.keys(asks).length > 0,
    body: takes !== undefined,
    creates: route.creates === true,
    versioned: false,
    writes: route.method !== 'GET',
  })
  const parameters = [
    ...namesIn(route.path).map((name) => ({ name, in: 'path', required: true, schema: { type: 'string' } })),
    ...Object.entries(asks).map(([name, description]) => ({
      ...{ name, in: 'query', required: false, description },
      schema: { type: 'string' },
    })),
    ...(route.creates === true ? [CREATES] : []),
  ]
  const form = { type: 'object', required: ['file'], properties: { file: FILE } }
  return {
    operationId: route.name,
    tags: ['files'],
    summary: route.summary,
    ...who,
    ...(parameters.length === 0 ? {} : { parameters }),
    ...(takes
      ? {
          requestBody: {
            required: true,
            content:
              takes.as === 'form'
                ? {
                    'multipart/form-data': {
                      schema: form,
                      encoding: { file: { contentType: takes.types.join(', ') } },
                    },
                  }
                : Object.fromEntries(takes.types.map((type) => [type, { schema: FILE }])),
          },
        }
      : {}),
    responses: {
      200: {
        description: 'Done',
        headers: HEADERS,
        content: { [route.gives]: { schema: route.gives === 'application/json' ? {} : { type: 'string' } } },
      },
      ...refusals,
    },
  }
}

/** Every value a shop may set, by key, as it is declared. */
const assumptionsSchema = (): object => ({
  type: 'object',
  additionalProperties: false,
  properties: Object.fromEntries(
    ASSUMPTIONS.map(({ key, says, unit, whole, lowest, highest, shipped, actsOn }) => [
      key,
      {
        type: whole ? 'integer' : 'number',
        minimum: lowest,
        maximum: highest,
        default: shipped,
        description: `${says} … (${unit}). Acts on: ${actsOn}.`,
      },
    ]),
  ),
})

/** The OpenAPI 3.1 document, made from the very schemas the server validates by. */
export function openApiDocument(): object {
  const paths: Record<string, Record<string, object>> = {}
  const put = (path: string, method: string, operation: object): void => {
    paths[addressOf(path)] = { ...paths[addressOf(path)], [method.toLowerCase()]: operation }
  }
  for (const [tag, endpoints] of Object.entries(capabilities))
    for (const endpoint of Object.values(endpoints) as Endpoint[])
      put(endpoint.path, endpoint.method, operationOf(endpoint, tag))
  for (const route of Object.values(fileRoutes) as FileRoute[]) put(route.path, route.method, fileOperationOf(route))
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pelrin',
      version: '1',
      description: 'Lengths in mm, distances in km, elongation in % of nominal pitch, money in minor units.',
      license: { name: 'MIT', identifier: 'MIT' },
    },
    servers: [{ url: '/', description: 'This very server' }],
    tags: [...Object.keys(capabilities), 'files'].map((name) => ({ name })),
    paths,
    components: {
      schemas: { Problem: schemaOf(Problem), Assumptions: assumptionsSchema() },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'pelrin_session' },
        token: {
          type: 'http',
          scheme: 'bearer',
          description: 'Made under House rules, Devices, for what a program does.',
        },
      },
    },
    security: [{ session: [] }, { token: [] }],
  }
}
