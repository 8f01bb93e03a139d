import * as v from 'valibot'
import { describe, expect, it } from 'vitest'
import { endpoints, fieldProblems, type Endpoint } from './index.ts'
import { problems } from './messages/index.ts'

const Visit = v.object({
  name: v.pipe(v.string('text-missing'), v.maxLength(3, 'text-too-long')),
  spots: v.array(v.object({ typed: v.string('text-missing') })),
  km: v.nullable(v.number('number-malformed')),
})

describe('what a schema refuses', () => {
  it('is nothing where it takes the value', () => {
    expect(fieldProblems(Visit, { name: 'Ivo', spots: [{ typed: '204.6' }], km: null })).toEqual([])
  })
  it('is said at the path of each field, also within a list, and no number is no number', () => {
    expect(fieldProblems(Visit, { name: 'Marsh', spots: [{ typed: 'a' }, { typed: 4 }], km: NaN })).toEqual([
      { path: 'name', code: 'text-too-long' },
      { path: 'spots.1.typed', code: 'text-missing' },
      { path: 'km', code: 'number-malformed' },
    ])
  })
  it('says of what is left out that it is missing, and of a whole that is none that it will not do', () => {
    expect(fieldProblems(Visit, { spots: [], km: 1 })).toEqual([{ path: 'name', code: 'text-missing' }])
    expect(fieldProblems(Visit, 'x')).toEqual([{ path: '', code: 'field-invalid' }])
  })
  it('says one thing of a field: the first', () => {
    const Twice = v.object({ a: v.pipe(v.string(), v.minLength(3, 'text-missing'), v.regex(/^\d+$/, 'id-malformed')) })
    expect(fieldProblems(Twice, { a: 'x' })).toEqual([{ path: 'a', code: 'text-missing' }])
  })
  it('has a sentence, whatever is sent to whatever there is', () => {
    const all = Object.values(endpoints as Readonly<Record<string, Endpoint>>)
    const junk = [null, undefined, 3, NaN, '', [], {}, { id: 1 }, { id: 'x', lines: [null], cells: { a: 1 } }]
    let refused = 0
    for (const { name, body } of all)
      for (const one of body ? junk : [])
        for (const { code } of fieldProblems(body!, one)) {
          expect(problems, `${name} ${code}`).toHaveProperty(code)
          refused++
        }
    expect(refused).toBeGreaterThan(200)
  })
})
