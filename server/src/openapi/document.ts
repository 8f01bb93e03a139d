import { toJsonSchema } from '@valibot/to-json-schema'
import type * as v from 'valibot'
import { ASSUMPTIONS } from '@pelrin/core'
import { endpoints, Problem, RIGHTS, type Endpoint } from '@pelrin/contract'

const schemaOf = (schema: v.GenericSchema): object => {
  const { $schema: _, ...rest } = toJsonSchema(schema, { errorMode: 'ignore', target: 'draft-2020-12' })
  return rest
}

const problem = (description: string): object => ({
  description,
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
})

function parametersOf(endpoint: Endpoint): object[] {
  const found: object[] = []
  for (const [where, schema] of [
    ['path', endpoint.params],
    ['query', endpoint.query],
  ] as const) {
    if (!schema) continue
    const { properties = {}, required = [] } = schemaOf(schema) as {
      properties?: Record<string, object>
      required?: string[]
    }
    for (const [name, property] of Object.entries(properties))
      found.push({ name, in: where, required: where === 'path' || required.includes(name), schema: property })
  }
  if (endpoint.creates === true)
    found.push({
      name: 'Idempotency-Key',
      in: 'header',
      required: true,
      description: 'A repeated request with the same key is done once and gets the first answer.',
      schema: { type: 'string', minLength: 8, maxLength: 200 },
    })
  if (endpoint.versioned === true)
    found.push({
      name: 'If-Match',
      in: 'header',
      required: true,
      description: 'The version the change starts from.',
      schema: { type: 'string' },
    })
  if (endpoint.queued === true)
    found.push({
      name: 'Pelrin-Person',
      in: 'header',
      required: false,
      description: 'Who said it, where the device has changed hands since; must have worked on it.',
      schema: { type: 'string', format: 'uuid' },
    })
  return found
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
  for (const endpoint of Object.values(endpoints) as Endpoint[]) {
    const path = `/api/v1${endpoint.path.replace(/:(\w+)/g, '{$1}')}`
    const parameters = parametersOf(endpoint)
    paths[path] ??= {}
    paths[path][endpoint.method.toLowerCase()] = {
      operationId: endpoint.name,
      summary: endpoint.summary,
      ...(endpoint.access === 'anyone'
        ? { security: [] }
        : { description: `For: ${RIGHTS[endpoint.access].join(', ')}.` }),
      ...(parameters.length === 0 ? {} : { parameters }),
      ...(endpoint.body
        ? { requestBody: { required: true, content: { 'application/json': { schema: schemaOf(endpoint.body) } } } }
        : {}),
      responses: {
        ...(endpoint.result
          ? { 200: { description: 'Done', content: { 'application/json': { schema: schemaOf(endpoint.result) } } } }
          : { 204: { description: 'Done' } }),
        ...(endpoint.access === 'anyone' ? {} : { 401: problem('Not signed in'), 403: problem('Not for this role') }),
        ...(endpoint.versioned === true ? { 412: problem('Changed meanwhile; holds the newer row') } : {}),
        422: problem('Not valid; names the fields'),
        503: problem('The database is away'),
      },
    }
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pelrin',
      version: '1',
      description: 'Lengths in mm, distances in km, elongation in % of nominal pitch.',
    },
    paths,
    components: {
      schemas: { Problem: schemaOf(Problem), Assumptions: assumptionsSchema() },
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'pelrin_session' } },
    },
    security: [{ session: [] }],
  }
}
