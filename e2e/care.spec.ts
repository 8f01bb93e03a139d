import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test, typeDay } from './bench.ts'

test('a chain’s care is written down in two keys on the stand, taken back, asked for by a wash, with an interval of its own', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'nell quayle sand', 'Nell Quayle')
  await endWord(page)
  const lines = page.getByRole('list', { name: 'So far' }).getByRole('listitem')
  await test.step('T and a digit', async () => {
    await page.keyboard.press('t')
    await page.keyboard.press('3')
    await expect(page.getByText('dry oil is written down.')).toBeVisible()
    await expect(lines.first()).toContainText(/dry oil, .+, Tove Sandell/)
    await expect(page.getByRole('button', { name: /dry oil, usual/ })).toBeVisible()
    await expectAccessible(page)
  })
  await test.step('U takes it back, and its care is what it was', async () => {
    await page.keyboard.press('u')
    await expect(page.getByRole('button', { name: /drip wax, usual/ })).toBeVisible()
    await expect(lines.first()).not.toContainText('dry oil')
  })
  await test.step('a wash asks for it at once; Enter gives its usual care', async () => {
    await page.keyboard.press('w')
    await expect(page.getByText('Dry it and treat it now: it was washed')).toBeVisible()
    await page.getByLabel('done at home, by who rides it').check()
    await page.getByRole('heading', { name: 'It was treated just now' }).click()
    await page.keyboard.press('Enter')
    await expect(lines.first()).toContainText(/drip wax, .+, at home, Tove Sandell/)
    await expect(page.getByText(/^Treat it again by /)).toBeVisible()
  })
  await test.step('an interval that is none is told at its field, and nothing typed is lost', async () => {
    await page.keyboard.press('e')
    await page.getByLabel('Dry km').fill('150')
    await page.keyboard.press('Enter')
    await expect(page.getByText('A treatment lasts 1 to 730 whole days.')).toBeVisible()
    await expect(page.getByLabel('Dry km')).toHaveValue('150')
    await page.getByLabel('Days at most').fill('20')
    await page.getByRole('combobox', { name: 'Between visits it is treated' }).press('Enter')
    await page.getByRole('option', { name: 'at home' }).press('Enter')
    await page.getByRole('button', { name: 'Save' }).press('Enter')
    await expect(page.getByText('This bike’s own interval.')).toBeVisible()
  })
  await test.step('D: a day it is wanted; one that is none is told at its field; taken away again', async () => {
    const days = page.getByRole('list', { name: 'Days it is wanted' }).getByRole('listitem')
    await expect(page.getByRole('dialog')).toBeHidden()
    const before = await days.count()
    await page.keyboard.press('d')
    await page.getByLabel('What for').fill('Lighthouse sprint')
    await page.keyboard.press('Enter')
    await expect(page.getByText('This is no date.')).toBeVisible()
    await expect(page.getByLabel('What for')).toHaveValue('Lighthouse sprint')
    await typeDay(page, 'Day', new Date())
    await page.keyboard.press('Enter')
    // It was waxed a moment ago.
    await expect(days.filter({ hasText: 'Lighthouse sprint: waxed; ride it in, 15 km, by' })).toBeVisible()
    await days.filter({ hasText: 'Lighthouse sprint' }).getByRole('button', { name: 'Take away' }).click()
    await expect(days).toHaveCount(before)
  })
  await page.keyboard.press('Escape')
  await expect(page.getByRole('heading', { level: 1, name: /Nell Quayle/ })).toBeVisible()
})
