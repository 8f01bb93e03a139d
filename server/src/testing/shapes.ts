import type * as v from 'valibot'
import { v7 } from 'uuid'

/** What of a schema is looked at to make something that fits it. */
interface Shape {
  readonly type: string
  readonly entries?: Record<string, Shape>
  readonly item?: Shape
  readonly items?: readonly Shape[]
  readonly options?: readonly unknown[]
  readonly literal?: unknown
  readonly wrapped?: Shape
  readonly key?: Shape
  readonly value?: Shape
  readonly pipe?: readonly { readonly kind: string; readonly type: string; readonly requirement?: unknown }[]
  readonly getter?: (input: unknown) => Shape
  readonly kind?: string
}

/** Texts tried where a schema has a pattern of its own. */
const TEXTS = [
  'A text',
  '1234',
  '204.6',
  'chain',
  '127.0.0.1:7411',
  '2026-05-04',
  '08:30',
  '0.5',
  'en',
  '01999 555 123',
]

function textOf(pipe: Shape['pipe'] = [], id: () => string): string {
  const actions = pipe.filter(({ kind }) => kind === 'validation')
  if (actions.some(({ type }) => type === 'uuid')) return id()
  if (actions.some(({ type }) => type === 'iso_timestamp')) return new Date(Date.now() - 60_000).toISOString()
  if (actions.some(({ type }) => type === 'iso_date')) return new Date().toISOString().slice(0, 10)
  const pattern = actions.find(({ type }) => type === 'regex')?.requirement
  const fits = pattern instanceof RegExp ? TEXTS.find((text) => pattern.test(text)) : undefined
  return fits ?? 'A text'
}

function numberOf(pipe: Shape['pipe'] = []): number {
  const bound = (type: string): number | undefined => pipe.find((action) => action.type === type)?.requirement as number
  const [least, most] = [bound('min_value'), bound('max_value')]
  return least !== undefined && most !== undefined ? Math.ceil((least + most) / 2) : (least ?? most ?? 1)
}

/**
 * Something of the shape a schema takes, whether or not it makes sense.
 *
 * @param id gives the ids in it
 */
export function sampleOf(schema: v.GenericSchema, id: () => string = () => v7()): unknown {
  return sample(schema, id)
}

function sample(shape: Shape, id: () => string): unknown {
  const inner = (of: Shape): unknown => sample(of, id)
  // A pipe stands for its first schema; what follows it says which values.
  const { pipe } = shape
  switch (shape.type) {
    case 'object':
    case 'strict_object':
    case 'loose_object':
      return Object.fromEntries(Object.entries(shape.entries!).map(([key, entry]) => [key, inner(entry)]))
    case 'array':
      return [inner(shape.item!)]
    case 'tuple':
      return shape.items!.map(inner)
    case 'record':
      return { [String(inner(shape.key!))]: inner(shape.value!) }
    case 'picklist':
      return shape.options![0]
    case 'literal':
      return shape.literal
    case 'union':
    case 'variant':
      return inner(shape.options![0] as Shape)
    case 'nullable':
    case 'optional':
    case 'exact_optional':
    case 'nullish':
    case 'non_optional':
      return inner(shape.wrapped!)
    case 'lazy':
      return inner(shape.getter!(undefined))
    case 'number':
      return numberOf(pipe)
    case 'boolean':
      return true
    case 'string':
      return textOf(pipe, id)
    default:
      return 'A text'
  }
}

/** Every place in a value that holds no further ones, and every one that does, as paths. */
export function placesIn(value: unknown, path: readonly string[] = []): string[][] {
  const here = path.length === 0 ? [] : [[...path]]
  if (value === null || typeof value !== 'object') return here
  return [...here, ...Object.entries(value).flatMap(([key, part]) => placesIn(part, [...path, key]))]
}

/** A value with something else at a path. */
export function withAt(value: unknown, path: readonly string[], other: unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return other
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...(value as object) }) as Record<string, unknown>
  copy[key] = withAt(copy[key], rest, other)
  return copy
}

/** What nobody sends who means well, or who has a sound keyboard. */
export const HOSTILE: readonly unknown[] = [
  null,
  '',
  'x'.repeat(5_000),
  'a\u0000b',
  'half \ud83d of one',
  '2026-11-31',
  '2026-02-30T25:61:00Z',
  '9999-12-31T23:59:59Z',
  2_147_483_648,
  Number.MAX_SAFE_INTEGER,
  -1e308,
  0.1 + 0.2,
  true,
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: { admin: true }, constructor: { prototype: 1 } },
  "'; DROP TABLE bikes; --",
  '=HYPERLINK("x")',
  '../../etc/passwd',
  '00000000-0000-0000-0000-000000000000',
  '01890000-0000-7000-8000-00000000000Z',
]
