import { expect } from '@playwright/test'
import { expectAccessible, go, signIn, test } from './bench.ts'

test('bike tags are printed from the rack, and a scanner that types opens the bike from anywhere', async ({
  page,
  baseURL,
}) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit2')
  await test.step('the sheet holds what the rack shows', async () => {
    await go(page, '/tags?q=island%20mail')
    const tags = page.getByRole('list', { name: 'Bike tags' }).getByRole('listitem')
    await expect(tags.first()).toContainText('Island Mail')
    expect(await tags.count()).toBeGreaterThan(5)
    await expect(tags.first().locator('svg')).toBeVisible()
    await expectAccessible(page)
  })
  await test.step('a code scanned into Pelrin finds its bike, as if its number had been typed', async () => {
    await go(page, '/diary')
    await expect(page.getByRole('heading', { name: 'Diary' })).toBeVisible()
    await page.keyboard.type(`${baseURL}/t/0400`, { delay: 8 })
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { level: 1, name: 'Ivo Marsh' })).toBeVisible()
  })
  await test.step('a camera follows it; a tag nobody has says so', async () => {
    await page.goto('/t/0400')
    await expect(page.getByRole('heading', { level: 1, name: 'Ivo Marsh' })).toBeVisible()
    await go(page, '/t/9999')
    await expect(page.getByRole('heading', { name: 'No bike here has the tag 9999.' })).toBeVisible()
  })
})

test('the owner makes a backup and sees that it is good', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('Shift+Minus')
  await page.getByRole('tab', { name: 'Backups' }).click()
  await page.getByRole('button', { name: 'Back up now' }).press('Enter')
  await expect(page.getByText(/^The last good backup is /)).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('list', { name: 'Backups' }).getByRole('listitem').first()).toContainText('.dump')
  await expectAccessible(page)
})

test('tables are taken out by the owner as files', async ({ page }) => {
  await signIn(page)
  await go(page, '/house-rules')
  await page.getByRole('tab', { name: 'In and out' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As CSV: Bikes, with drive, chain, verdict and what is due' }).press('Enter'),
  ])
  expect(download.suggestedFilename()).toBe('bikes.csv')
  await expectAccessible(page)
  await test.step('and come in again: looked at row by row, what is wrong at its cell, what is new taken', async () => {
    await page.getByRole('button', { name: /^From CSV: Customers/ }).press('Enter')
    const dialog = page.getByRole('dialog')
    const csv = 'name,phone,good_weekday,colour\nMerrin Hale,0555 0301,5,red\nTamsin Lode,0555 0302,9,blue\n'
    await dialog
      .locator('input[type=file]')
      .setInputFiles({ name: 'customers.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
    await expect(dialog.getByText('Not read: colour.')).toBeVisible()
    await expect(dialog.getByText(/good_weekday “9”: This is no number in range/)).toBeVisible()
    await expectAccessible(page)
    await dialog.getByRole('button', { name: 'Take 1 row' }).press('Enter')
    await expect(page.getByText('1 added, 1 left out.')).toBeVisible()
    await expect(dialog).toBeHidden()
  })
  await test.step('and as one archive, which says that all of it is here already when it is taken in', async () => {
    const [archive] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'As one archive' }).press('Enter'),
    ])
    expect(archive.suggestedFilename()).toBe('saltmarsh.jsonl')
    await page.locator('input[type=file]').setInputFiles(await archive.path())
    await expect(page.getByText(/Everything in it is here already\.|rows? to add/)).toBeVisible({ timeout: 60_000 })
    await page.locator('input[type=file]').setInputFiles({
      name: 'half.jsonl',
      mimeType: 'application/jsonl',
      buffer: Buffer.from('{"pelrin":"archive","version":1}\n'),
    })
    await expect(page.getByText(/ends at line 1 without its foot/)).toBeVisible()
  })
})
