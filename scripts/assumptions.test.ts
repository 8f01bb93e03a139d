import { expect, it } from 'vitest'
import { assumptionsPage, assumptionsPageThere } from './assumptions.ts'

it('docs/assumptions.md is what is declared (npm run assumptions writes it)', () => {
  expect(assumptionsPageThere()).toBe(assumptionsPage())
})
