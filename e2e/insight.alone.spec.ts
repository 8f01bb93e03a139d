import { expect, test } from '@playwright/test'
import { signIn } from './bench.ts'

test('the shop learns from its chains, forecasts every one anew, and takes it back', async ({ page }) => {
  test.setTimeout(180_000)
  await signIn(page)
  await page.keyboard.press('Shift+Digit0')
  await expect(page.getByRole('heading', { level: 1, name: 'Insight' })).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('Shipped values in force')).toBeVisible()
  const cameTrue = page.getByRole('region', { name: 'How forecasts came true' })
  await expect(cameTrue.getByRole('row').nth(1)).toContainText('%')
  await page.getByRole('button', { name: 'Learn from the shop’s chains' }).click()
  await expect(page.getByText(/^Version 1, Tove/)).toBeVisible({ timeout: 60_000 })
  const every = page.getByRole('region', { name: 'Every chain' })
  await expect(every.getByText(/^Last run .*: done, 119 of 119\./)).toBeVisible({ timeout: 90_000 })
  await page.getByRole('button', { name: 'Take version 1 back' }).click()
  await expect(page.getByText(/taken back/)).toBeVisible()
  await every.getByRole('button', { name: 'Stop' }).click()
  await expect(every.getByText(/: stopped, /)).toBeVisible({ timeout: 30_000 })
})
