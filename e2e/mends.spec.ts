import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test } from './bench.ts'

test('a broken chain is looked over and mended by keyboard, over a reload, and the rider is told which gears to keep off', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'hob narrow club', 'Hob Narrow')
  await endWord(page)
  await page.keyboard.press('x')
  await expect(page.getByText('Pitches 1 to 14: every link')).toBeVisible()
  await expectAccessible(page)
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Space')
  await page.keyboard.press('Enter')
  await page.reload()
  await expect(page.getByText('Pitches 15 to 28: every link')).toBeVisible()
  await expect(page.getByRole('img', { name: /2 of them damaged/ })).toBeVisible()
  while (await page.getByRole('button', { name: /^Looked over/ }).isVisible()) {
    const said = await page.getByText(/^Pitches \d+ to/).textContent()
    await page.keyboard.press('Enter')
    await expect(page.getByText(said ?? '')).toBeHidden()
  }
  const ways = page.getByRole('radiogroup', { name: 'Ways to mend it' }).getByRole('radio')
  await expect(ways.first()).toContainText('4 pitches fewer: 112, with a link')
  await page.keyboard.press('2')
  await expect(ways.nth(1)).toHaveAttribute('aria-checked', 'true')
  await expect(ways.nth(1)).toContainText('with a new pin')
  await page.keyboard.press('1')
  await expect(page.getByRole('table')).toBeVisible()
  await expectAccessible(page)
  await test.step('neither a cause nor a click that was not said is taken for granted', async () => {
    await page.getByRole('button', { name: 'Mended so' }).press('Enter')
    await expect(page.getByRole('alert')).toContainText('Say what made it break')
    await page.getByLabel('Why did it break?').selectOption('bent in shifting under load')
    await expect(page.getByLabel('What the rider is told')).toHaveValue(/because of this: bent in shifting/)
    await page.getByRole('button', { name: 'Mended so' }).press('Enter')
    await expect(page.getByRole('dialog', { name: /^Back on: / })).toBeVisible()
    await page
      .getByRole('radio', { name: /in stock|not from stock/ })
      .first()
      .press('Enter')
    await page.keyboard.press('1')
    await expect(page.getByRole('dialog', { name: /^Back on: / })).toBeHidden()
  })
  await expect(page.getByText(/It is looked at again by/)).toBeVisible()
  await expect(page.getByText(/mended, 112 pitches left/)).toBeVisible()
  await expect(page.getByLabel('Pitches, the broken one among them')).toHaveValue('112')
})
