import { expect, test, type Locator, type Page } from '@playwright/test'
import { go, signIn } from './bench.ts'

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
  const days = page.getByLabel('Readings count together within so many days before the latest')
  await days.fill('500')
  await expect(page.getByText('Between 0 and 90.')).toBeVisible()
  await days.fill('7')
  await page.getByRole('button', { name: 'back to 14' }).click()
  await expect(days).toHaveValue('14')
})

test('how jobs are done here is chosen, also where somebody else was first', async ({ page, context }) => {
  await signIn(page)
  const other = await context.newPage()
  await other.goto('/')
  for (const tablet of [page, other]) {
    await go(tablet, '/house-rules')
    await tablet.getByRole('tab', { name: 'Jobs' }).click()
    await expect(tablet.getByRole('region', { name: 'To slacken the chain' })).toBeVisible()
  }
  const oil = (tablet: Page): Locator => tablet.getByRole('checkbox', { name: /^A drop of oil/ })
  const before = await oil(page).isChecked()
  await oil(page).setChecked(!before)
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Jobs begin with these from now on.')).toBeVisible()
  const prepared = other.getByRole('region', { name: 'A new chain before it goes on' }).getByRole('button')
  await prepared.last().click()
  await other.getByRole('button', { name: 'Save' }).click()
  // What the other changed is shown, and nothing chosen is lost.
  await expect(other.getByRole('alert')).toBeVisible()
  await expect(oil(other)).toBeChecked({ checked: !before })
  await expect(prepared.last()).toHaveAttribute('aria-pressed', 'true')
  await other.getByRole('button', { name: 'Save' }).click()
  await expect(other.getByText('Jobs begin with these from now on.')).toBeVisible()
  await expect(other.getByRole('alert')).toHaveCount(0)
  expect(await (await page.request.get('/api/v1/house-rules/job-schools')).json()).toMatchObject({
    schools: { oilPins: !before },
  })
})
