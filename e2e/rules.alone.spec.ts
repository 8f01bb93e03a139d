import { expect, test } from '@playwright/test'
import { signIn } from './bench.ts'

test('a rule changed says what it moves, and moves it', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('Shift+Minus')
  await expect(page.getByRole('heading', { level: 1, name: 'House rules' })).toBeVisible()
  await page.getByRole('button', { name: /^early change/ }).click()
  await page.getByRole('button', { name: 'Make it the shop’s rule' }).click()
  const moves = page.getByTestId('moves')
  await expect(moves).toContainText(/Judges \d+ bikes anew: \d+ verdicts? moves?\./, { timeout: 30_000 })
  const promised = /anew: (\d+) /.exec(await moves.innerText())?.[1]
  await page.getByLabel('Reason').fill('when in doubt, change')
  await page.getByRole('button', { name: 'Make this change' }).click()
  await expect(page.getByText(`Changed. ${promised} verdicts moved.`)).toBeVisible({ timeout: 40_000 })
  await expect(page.getByRole('button', { name: /^early change the shop’s rule/ })).toBeVisible()
  // And back, so that the others' stories are as they were.
  await page.getByRole('button', { name: /^by speeds/ }).click()
  await page.getByRole('button', { name: 'Make it the shop’s rule' }).click()
  await expect(moves).toContainText(/verdicts? moves?\./, { timeout: 30_000 })
  await page.getByLabel('Reason').fill('back again')
  await page.getByRole('button', { name: 'Make this change' }).click()
  await expect(page.getByRole('button', { name: /^by speeds the shop’s rule/ })).toBeVisible({ timeout: 40_000 })
  // Every value that is assumed has its unit and its way back.
  await page.getByRole('tab', { name: 'What is assumed' }).click()
  const days = page.getByLabel('and within these days before the latest')
  await days.fill('500')
  await expect(page.getByText('Between 0 and 90.')).toBeVisible()
  await days.fill('7')
  await page.getByRole('button', { name: 'back to 14' }).click()
  await expect(days).toHaveValue('14')
})
