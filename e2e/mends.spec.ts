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
  await test.step('it says how worn the chain is, what each way takes, and how it is done', async () => {
    await expect(page.getByRole('region', { name: 'Is it worth mending?' })).toContainText(
      /Mending it takes from \d+ min/,
    )
    await expect(ways.first()).toContainText(/\d+ min/)
    await page.getByRole('button', { name: 'on its side' }).press('Enter')
    await expect(page.getByText('Lay it on its left side')).toBeVisible()
    await expect(page.getByText(/one pocket, the new link or pin in the other/)).toBeVisible()
  })
  await expect(page.getByRole('table')).toBeVisible()
  await expectAccessible(page)
  await test.step('neither a cause nor a click that was not said is taken for granted', async () => {
    await page.getByRole('button', { name: 'It is mended' }).press('Enter')
    await expect(page.getByRole('alert')).toContainText('Say what made it break')
    await page.getByLabel('Why did it break?').selectOption('bent in shifting under load')
    await expect(page.getByLabel('What the rider is told')).toHaveValue(/because of this: bent in shifting/)
    await page.getByRole('button', { name: 'It is mended' }).press('Enter')
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
  await test.step('its pitches go back later: the count is as it was, and the chain is measured anew', async () => {
    await page.keyboard.press('a')
    const dialog = page.getByRole('dialog', { name: 'Put pitches back' })
    await expect(dialog.getByLabel('Pitches to put back')).toHaveValue('4')
    await expect(dialog.getByText(/3 pitches of chain go in, an inner link at both ends. 116 pitches/)).toBeVisible()
    await expectAccessible(page)
    // A click nobody said is not taken for firm.
    await page.keyboard.press('Enter')
    await expect(dialog.getByText('Say how the link clicked.')).toBeVisible()
    await dialog.getByLabel('How did the link click?').press('Enter')
    await page.getByRole('option').first().press('Enter')
    await dialog.getByRole('button', { name: /Pitches are in/ }).press('Enter')
    await expect(dialog).toBeHidden()
    await expect(page.getByText(/Pitches put back/).first()).toBeVisible()
    await endWord(page)
  })
})
