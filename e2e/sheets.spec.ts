import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test } from './bench.ts'

test('a customer’s sheet is opened, read and printed from the bike, and the carry card beside it', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'courier', 'Mara Lisk')
  await endWord(page)
  await page.keyboard.press('h')
  const sheet = page.getByRole('article', { name: 'Your bike’s chain' })
  await expect(sheet.getByRole('img', { name: /^Wear rule/ })).toBeVisible()
  await expect(sheet.getByRole('heading', { name: 'What to expect' })).toBeVisible()
  await expectAccessible(page)
  await test.step('on paper there is the page and nothing else', async () => {
    await page.emulateMedia({ media: 'print' })
    await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden()
    await expect(page.getByRole('link', { name: 'As a PDF' })).toBeHidden()
    await expect(sheet).toBeVisible()
    await page.emulateMedia({ media: 'screen' })
  })
  const address = await page.getByRole('link', { name: 'As a PDF' }).getAttribute('href')
  const file = await page.request.get(address ?? '')
  expect([file.status(), file.headers()['content-type']]).toEqual([200, 'application/pdf'])
  await page.getByRole('tab', { name: 'Carry card' }).click()
  await expect(page.getByRole('article', { name: 'Carry card' })).toContainText('Chain tool')
  await page.getByRole('tab', { name: 'Your mended chain' }).click()
  await expect(page.getByText('No mended chain of this bike is written down.')).toBeVisible()
})
