import { expect, test } from '@playwright/test'
import { expectAccessible, signIn } from './bench.ts'

test('a bike that is not found is taken in by keyboard, slips named at their fields, and is measured at once', async ({
  page,
}) => {
  await signIn(page)
  await page.keyboard.type('Edda Fennel', { delay: 15 })
  await page.getByRole('option', { name: /New bike for/ }).click()
  const customer = page.getByRole('combobox', { name: 'Customer' })
  await expect(customer).toBeFocused()
  await expect(customer).toHaveValue('Edda Fennel')
  await expectAccessible(page)
  await test.step('what is missing or no number is told where it belongs; nothing typed is lost, also by a reload', async () => {
    await page.getByLabel('What the rider calls it').fill('Estuary')
    await page.getByLabel('Teeth of the rings').fill('4')
    await page.getByLabel('Sprockets at the back').fill('eleven')
    await page.getByLabel('Sprockets at the back').press('Enter')
    await expect(page.getByLabel('Sprockets at the back')).toHaveAccessibleDescription(/number/)
    await page.getByLabel('Sprockets at the back').fill('11')
    await page.reload()
    await expect(page.getByLabel('What the rider calls it')).toHaveValue('Estuary')
    await page.getByLabel('Sprockets at the back').press('Enter')
    for (const label of ['Kind', 'Teeth of the sprockets', 'What it is'])
      await expect(page.getByLabel(label, { exact: true })).toHaveAttribute('aria-invalid', 'true')
  })
  await test.step('then it is on the stand, with its verdict, its tag and its name to be found by', async () => {
    await page.getByLabel('Kind', { exact: true }).fill('gravel')
    await page.getByLabel('Teeth of the sprockets').fill('11-42')
    await page.getByLabel('What it is', { exact: true }).fill('Tindrel 11')
    await page.getByLabel('Odometer').fill('1204')
    await page.getByLabel('Odometer').press('Enter')
    await expect(page.getByLabel('Teeth of the rings')).toHaveAttribute('aria-invalid', 'true')
    await page.getByLabel('Teeth of the rings').fill('40')
    await page.getByLabel('Odometer').press('Enter')
    await expect(page.getByRole('heading', { level: 1, name: 'Edda Fennel' })).toBeVisible()
    await expect(page.getByText(/on the stand since/).first()).toBeVisible()
    await page.keyboard.press('m')
    await expect(page.getByRole('textbox', { name: 'Spot 1' })).toBeFocused()
  })
  await test.step('another of theirs is theirs: a name that is known is offered', async () => {
    await page.goto('/rack')
    await page.getByRole('link', { name: /New bike/ }).click()
    await page.getByRole('combobox', { name: 'Customer' }).fill('edda')
    await page.getByRole('option', { name: /Edda Fennel/ }).click()
    await expect(page.getByText('Known here, with Estuary.')).toBeVisible()
    await expect(page.getByLabel('Phone')).toBeHidden()
  })
})
