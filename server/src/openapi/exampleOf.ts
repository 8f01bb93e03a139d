/** As much of a JSON schema as values are made by. */
export interface JsonSchema {
  readonly type?: string
  readonly const?: unknown
  readonly enum?: readonly unknown[]
  readonly anyOf?: readonly JsonSchema[]
  readonly oneOf?: readonly JsonSchema[]
  readonly allOf?: readonly JsonSchema[]
  readonly properties?: Readonly<Record<string, JsonSchema>>
  readonly required?: readonly string[]
  readonly items?: JsonSchema
  readonly minItems?: number
  readonly format?: string
  readonly pattern?: string
  readonly minLength?: number
  readonly minimum?: number
  readonly exclusiveMinimum?: number
  readonly maximum?: number
}

const ID = '0192c7f2-5340-7b38-85ad-942ae19fa762'
const MOMENT = '2026-11-27T09:30:00.000Z'

/**
 * A value a schema takes, to show what one looks like: of everything that may be there what has to be, the first of what can be chosen, the
 * least of what is counted.
 */
export function exampleOf(schema: JsonSchema): unknown {
  if (schema.const !== undefined) return schema.const
  if (schema.enum) return schema.enum[0]
  const parts = schema.allOf?.map(exampleOf)
  if (parts) return Object.assign({}, ...parts) as unknown
  const [first] = schema.anyOf ?? schema.oneOf ?? []
  if (first) return exampleOf(first)
  switch (schema.type) {
    case 'object':
      return Object.fromEntries(
        Object.entries(schema.properties ?? {})
          .filter(([key]) => schema.required?.includes(key))
          .map(([key, property]) => [key, exampleOf(property)]),
      )
    case 'array':
      return Array.from({ length: schema.minItems ?? 0 }, () => exampleOf(schema.items ?? {}))
    case 'integer':
    case 'number':
      return numberOf(schema)
    case 'boolean':
      return false
    case 'null':
      return null
    case 'string':
      return textOf(schema)
    default:
      return {}
  }
}

const numberOf = ({ minimum, exclusiveMinimum, maximum }: JsonSchema): number =>
  exclusiveMinimum !== undefined ? exclusiveMinimum + 1 : (minimum ?? Math.min(maximum ?? 1, 1))

function textOf({ format, minLength = 0, pattern }: JsonSchema): string {
  if (format === 'uuid') return ID
  if (format === 'email') return 'somebody@example.org'
  if (format === 'date-time') return MOMENT
  if (format === 'date') return MOMENT.slice(0, 10)
  if (format === 'time') return MOMENT.slice(11, 16)
  // What has a pattern here is made of digits: a count, a code, an hour.
  if (pattern !== undefined) return patternText(pattern)
  return 'wax'.padEnd(minLength, '-')
}

const patternText = (pattern: string): string =>
  ['1', '12', '0001', '2026-11-27', '09:30', '2026-11-27T09:30', MOMENT, ID, 'wax', 'a@b.example'].find((text) =>
    new RegExp(pattern, 'u').test(text),
  ) ?? '1'
