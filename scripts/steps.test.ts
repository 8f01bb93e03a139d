import { CARE_STEPS, STEPS } from '@pelrin/core'
import { expect, it } from 'vitest'
import { stepsPage, stepsPageThere } from './steps.ts'

it('docs/steps.md is what the tables of steps say (npm run steps writes it)', () => {
  expect(stepsPageThere()).toBe(stepsPage())
})
it('has a row for every step there is', () => {
  const page = stepsPage()
  for (const { id } of [...STEPS, ...CARE_STEPS]) expect(page, id).toContain(`| \`${id}\` |`)
})
