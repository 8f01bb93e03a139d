import fc from 'fast-check'
import * as v from 'valibot'
import { describe, expect, it } from 'vitest'
import { arbitraryOf } from './arbitraryOf.testing.ts'
import { fieldProblems } from './fieldProblems.ts'
import { endpoints } from './index.ts'

type Schema = v.GenericSchema
const bodies = Object.values(endpoints).flatMap((endpoint) => {
  const body = (endpoint as { body?: Schema }).body
  return body ? [[endpoint.name, body] as const] : []
})
const results = Object.values(endpoints).flatMap((endpoint) => {
  const result = (endpoint as { result?: Schema }).result
  return result ? [[endpoint.name, result] as const] : []
})
const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null

/** Values of a body its own functions and patterns let through too. */
const accepted = (schema: Schema): fc.Arbitrary<unknown> =>
  arbitraryOf(schema).filter((value) => v.safeParse(schema, value).success)

/** Fields of a body, as its schema has them. */
const fieldsOf = (schema: Schema): Record<string, { readonly type: string }> =>
  (schema as unknown as { entries?: Record<string, { type: string }> }).entries ?? {}
/** Types of a field that is to be there. */
const TOLD = /^(?:string|number|boolean|picklist|literal|object|array|nullable|union|variant)$/

const few = (schema: Schema): unknown[] => fc.sample(arbitraryOf(schema), { numRuns: 60, seed: 11 })
/** Bodies of which a value made by their types alone is taken sooner or later; the others want patterns nothing here knows. */
const made = bodies.filter(([, schema]) => few(schema).some((value) => v.safeParse(schema, value).success))

describe('what is sent', () => {
  it('is nearly always told by types and bounds alone', () => {
    expect(bodies.length).toBeGreaterThan(60)
    // Zones, clocks, PINs, links and addresses have patterns of their own: they are tried by examples, where they are served.
    const patterned = ['changeShop', 'changeOwnPin', 'welcome', 'enter', 'changeMail', 'tryMail']
    expect(bodies.filter((one) => !made.includes(one)).map(([name]) => name)).toEqual(patterned)
  })
  describe.each(made)('to %s', (_, schema) => {
    it('is taken as it is, and again as it was taken', () => {
      fc.assert(
        fc.property(accepted(schema), (value) => {
          const once = v.parse(schema, value)
          expect(JSON.stringify(v.parse(schema, JSON.parse(JSON.stringify(value))))).toBe(JSON.stringify(once))
        }),
        { numRuns: 12 },
      )
    })
    it('is refused at the field that is missing or is something else, and says which', () => {
      const wanted = Object.entries(fieldsOf(schema)).filter(([, { type }]) => TOLD.test(type))
      const [one] = fc.sample(accepted(schema), { numRuns: 1, seed: 5 })
      if (!isObject(one)) throw new Error('no body is anything but an object')
      for (const [key] of wanted) {
        const { [key]: _gone, ...rest } = one
        for (const changed of [rest, { ...rest, [key]: () => 1 }]) {
          const paths = fieldProblems(schema, changed).map(({ path }) => path)
          expect(
            paths.some((path) => path === key || path.startsWith(`${key}.`)),
            `${key}: ${paths.join()}`,
          ).toBe(true)
        }
      }
    })
    it('is refused where it is no object at all', () => {
      for (const nothing of [null, undefined, 7, 'text', true]) expect(v.safeParse(schema, nothing).success).toBe(false)
    })
  })
})

describe('what is answered', () => {
  it.each(results)('by %s goes over the wire and comes back the same', (_, schema) => {
    fc.assert(
      fc.property(arbitraryOf(schema), (value) => {
        const parsed = v.safeParse(schema, value)
        if (!parsed.success) return
        expect(v.parse(schema, JSON.parse(JSON.stringify(parsed.output)))).toEqual(
          JSON.parse(JSON.stringify(parsed.output)),
        )
      }),
      { numRuns: 6 },
    )
  })
})
