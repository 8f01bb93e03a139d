import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test } from './bench.ts'

test('everything else that wears is looked over in one pass by keyboard, a wrong thickness told at its field', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'rosen brack', 'Rosen Brack')
  await endWord(page)
  await page.keyboard.press('o')
  const row = (name: string) =>
    page.getByRole('list', { name: 'Other wear' }).getByRole('listitem').filter({ hasText: name })
  await expect(row('Cassette')).toHaveAttribute('aria-current', 'true')
  await expectAccessible(page)
  await page.keyboard.press('2')
  await expect(row('Cassette').getByRole('button', { name: 'Cassette: used' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('2')
  await page.keyboard.press('1')
  await test.step('a rotor takes its digits into its field', async () => {
    await expect(page.getByLabel('Front rotor: Thickness, mm')).toBeFocused()
    await page.keyboard.type('1;72')
    await page.keyboard.press('Tab')
    await page.keyboard.type('1,5')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('3')
    await expect(row('Rear pads')).toHaveAttribute('aria-current', 'true')
    await page.keyboard.press('s')
    await expect(row('Front rotor')).toContainText('Type a thickness in mm, such as 1.72.')
    await expect(page.getByLabel('Front rotor: Thickness, mm')).toBeFocused()
    await page.getByLabel('Front rotor: Thickness, mm').fill('1,72')
  })
  await page.getByRole('button', { name: /^Save 5 looks/ }).press('Enter')
  await expect(page.getByText('Written down.')).toBeVisible()
  await expect(row('Front rotor')).toContainText('1.72 mm on')
  await expect(row('Front rotor')).toContainText(/left; again in/)
  await expect(row('Front pads')).toContainText('change it')
  await expect(row('Cassette')).toContainText(/used on .*again in/)
})
