import { safeParse } from 'valibot'
import { describe, expect, it } from 'vitest'
import { endpoints, type Endpoint } from './index.ts'
import { problems } from './messages/index.ts'

/** What of a schema says how a value of it is made. */
interface Shape {
  readonly type: string
  readonly entries?: Readonly<Record<string, Shape>>
  readonly item?: Shape
  readonly items?: readonly Shape[]
  readonly value?: Shape
  readonly wrapped?: Shape
  readonly options?: readonly unknown[]
  readonly literal?: unknown
}

/** A value that has the form a schema asks for, whether its texts and numbers would do or not. */
function formed(shape: Shape): unknown {
  const { type, entries, item, items, wrapped, options, literal } = shape
  if (entries) return Object.fromEntries(Object.entries(entries).map(([name, entry]) => [name, formed(entry)]))
  if (item) return [formed(item)]
  if (items) return items.map(formed)
  if (wrapped) return formed(wrapped)
  if (type === 'picklist') return options?.[0]
  if (type === 'union' || type === 'variant') return formed(options?.[0] as Shape)
  if (type === 'literal') return literal
  if (type === 'number') return 1
  if (type === 'boolean') return true
  return type === 'record' ? {} : 'x'
}

/** What nobody meant to send. */
const JUNK: readonly unknown[] = [
  null,
  true,
  -1,
  0.5,
  1e12,
  NaN,
  '',
  '   ',
  'x'.repeat(20_000),
  '2026-13-45',
  '\u0000',
  [],
  Array.from({ length: 3000 }, () => 'x'),
  {},
]

/** A value with each of its parts, and itself, replaced by everything nobody meant, and left out. */
function* spoiled(value: unknown): Generator {
  yield* JUNK
  if (Array.isArray(value)) {
    for (const [i, part] of value.entries())
      for (const bad of spoiled(part)) yield value.map((one: unknown, j) => (i === j ? bad : one))
    yield Array.from({ length: 3000 }, () => value[0] as unknown)
  } else if (typeof value === 'object' && value !== null)
    for (const [name, part] of Object.entries(value)) {
      for (const bad of spoiled(part)) yield { ...value, [name]: bad }
      yield Object.fromEntries(Object.entries(value).filter(([other]) => other !== name))
    }
}

const taken = Object.values<Endpoint>(endpoints).flatMap(({ name, params, query, body }) =>
  Object.entries({ params, query, body }).flatMap(([part, schema]) =>
    schema === undefined ? [] : [[`${name}: ${part}`, schema] as const],
  ),
)

describe('whatever is sent to an endpoint', () => {
  it.each(taken)('%s is taken, or refused by a sentence of its own', (_, schema) => {
    const unknown = new Set<string>()
    for (const value of spoiled(formed(schema)))
      for (const issue of safeParse(schema, value).issues ?? [])
        // What is of another kind altogether is told as such; what is of its kind but will not do, by its own sentence.
        if (issue.kind === 'validation' && !(issue.message in problems))
          unknown.add(`${issue.path?.map(({ key }) => String(key)).join('.') ?? ''}: ${issue.message}`)
    expect([...unknown]).toEqual([])
  })
})
