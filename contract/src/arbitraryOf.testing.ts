import fc from 'fast-check'
import type * as v from 'valibot'

/** A schema as valibot describes it: what it is, and what it holds in turn. */
interface Described {
  readonly type: string
  readonly pipe?: readonly Described[]
  readonly kind?: string
  readonly requirement?: unknown
  readonly wrapped?: Described
  readonly item?: Described
  readonly items?: readonly Described[]
  readonly entries?: Readonly<Record<string, Described>>
  readonly options?: readonly unknown[]
  readonly literal?: unknown
  readonly key?: Described
  readonly value?: Described
  readonly getter?: (input: unknown) => Described
}

/**
 * Values a schema says it takes, made from the schema itself. What it narrows down by a function or a pattern of its own is narrowed down by
 * the schema: few values are left over of those, so that they are tried by examples instead.
 */
export const arbitraryOf = (schema: v.GenericSchema): fc.Arbitrary<unknown> => made(schema)

function made(schema: Described): fc.Arbitrary<unknown> {
  const rules = (schema.pipe ?? []).filter(({ kind }) => kind !== 'schema')
  const bound = (type: string): number | undefined => {
    const found = rules.find((rule) => rule.type === type)?.requirement
    return typeof found === 'number' ? found : undefined
  }
  switch (schema.type) {
    case 'object':
    case 'loose_object':
    case 'strict_object':
      return objectOf(schema.entries ?? {})
    case 'array':
      return fc.array(made(schema.item!), {
        minLength: bound('min_length') ?? 0,
        maxLength: Math.min(bound('max_length') ?? 3, (bound('min_length') ?? 0) + 3),
      })
    case 'tuple':
      return fc.tuple(...(schema.items ?? []).map(made))
    case 'record':
      return fc.dictionary(made(schema.key!) as fc.Arbitrary<string>, made(schema.value!), { maxKeys: 3 })
    case 'nullable':
      return fc.option(made(schema.wrapped!), { nil: null })
    case 'optional':
    case 'exact_optional':
      return made(schema.wrapped!)
    case 'nullish':
      return fc.option(made(schema.wrapped!), { nil: null })
    case 'intersect':
      return fc
        .tuple(...(schema.options as Described[]).map(made))
        .map((parts) => Object.assign({}, ...parts) as unknown)
    case 'union':
    case 'variant':
      return fc.oneof(...(schema.options as Described[]).map(made))
    case 'picklist':
    case 'enum':
      return fc.constantFrom(...(schema.options ?? []))
    case 'literal':
      return fc.constant(schema.literal)
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'lazy':
    case 'custom':
      return fc.constant(null)
    case 'number':
      return numberOf(rules, bound)
    case 'string':
      return stringOf(rules, bound)
    case 'unknown':
    case 'any':
      return fc.jsonValue()
    default:
      throw new Error(`no values are made of ${schema.type}`)
  }
}

const objectOf = (entries: Readonly<Record<string, Described>>): fc.Arbitrary<unknown> => {
  const may = Object.entries(entries).filter(([, { type }]) => /optional|nullish/.test(type))
  return fc.record(Object.fromEntries(Object.entries(entries).map(([key, entry]) => [key, made(entry)])), {
    requiredKeys: Object.keys(entries).filter((key) => !may.some(([one]) => one === key)),
  })
}

function numberOf(rules: readonly Described[], bound: (type: string) => number | undefined): fc.Arbitrary<number> {
  const [min, max] = [bound('min_value') ?? bound('gt_value') ?? -1e6, bound('max_value') ?? bound('lt_value') ?? 1e6]
  if (rules.some(({ type }) => type === 'integer' || type === 'safe_integer'))
    return fc.integer({ min: Math.ceil(min), max: Math.floor(max) })
  return fc.double({ min, max, noNaN: true, noDefaultInfinity: true })
}

const HEX = '0123456789abcdef'.split('')
function stringOf(rules: readonly Described[], bound: (type: string) => number | undefined): fc.Arbitrary<string> {
  const is = (type: string): boolean => rules.some((rule) => rule.type === type)
  if (is('uuid')) return fc.uuid({ version: 7 })
  if (is('iso_timestamp'))
    return fc
      .date({ min: new Date('2020-01-01'), max: new Date('2030-01-01'), noInvalidDate: true })
      .map((date) => date.toISOString())
  if (is('iso_date'))
    return fc
      .date({ min: new Date('2020-01-01'), max: new Date('2030-01-01'), noInvalidDate: true })
      .map((date) => date.toISOString().slice(0, 10))
  if (is('digits')) return fc.integer({ min: 1, max: 150 }).map(String)
  const [most, least] = [bound('max_length') ?? 24, bound('min_length') ?? (is('non_empty') ? 1 : 0)]
  return fc
    .array(fc.constantFrom(...HEX, ' ', 'ö', '’', '-', ','), {
      minLength: least,
      maxLength: Math.max(least, Math.min(most, 24)),
    })
    .map((signs) => signs.join('').trim().padEnd(least, 'a'))
}
