import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test } from './bench.ts'

test('a courier’s chains are swapped in three keys, the click of the link among them, taken back, added to, and each has its page', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'courier', 'Mara Lisk')
  const rows = page.getByRole('list', { name: 'Chains of this bike' }).getByRole('listitem')
  await endWord(page)
  await test.step('S and a digit put another chain on', async () => {
    await page.keyboard.press('s')
    await page.keyboard.press('1')
    await expect(page.getByRole('dialog', { name: /^Back on: / })).toContainText('closed 3 of 5 times')
    await page.keyboard.press('1')
    await expect(page.getByText('Ostling Halyard 12, blue tie is on.')).toBeVisible()
    await expect(rows).toHaveCount(3)
    await expect(rows.first()).toContainText('on the bike')
    await expect(page.getByRole('region', { name: 'Ostling Halyard 12, blue tie' })).toContainText('closed 4 of 5')
    await expectAccessible(page)
  })
  await test.step('U takes it back', async () => {
    await endWord(page)
    await page.keyboard.press('u')
    await expect(page.getByRole('button', { name: /Take the swap back/ })).toBeHidden()
    await expect(page.getByRole('listitem').filter({ hasText: 'on the bike' })).toHaveCount(1)
    await expect(rows.first()).not.toContainText('on the bike')
  })
  await test.step('a chain joins the rotation; one without a name is refused at the field', async () => {
    await page.keyboard.press('a')
    await page.getByLabel('What it is called').fill('')
    await page.keyboard.press('Enter')
    await expect(page.getByText('This cannot be empty.')).toBeVisible()
    await page.getByLabel('What it is called').fill('Ostling Halyard 12, white tie')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('listitem').filter({ hasText: 'white tie' })).toContainText('never ran here')
  })
  await test.step('its link has a page with its closings', async () => {
    await page.getByRole('link', { name: 'Its link' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toContainText('closed')
    await expect(page.getByRole('list', { name: 'Timeline' }).getByRole('listitem').first()).toContainText('Mara Lisk')
    await expectAccessible(page)
    await page.getByRole('link', { name: /^Closes / }).click()
    await expect(page.getByRole('heading', { name: /tie$/ })).toBeVisible()
  })
})
