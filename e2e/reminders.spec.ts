import { expect } from '@playwright/test'
import { expectAccessible, signIn, test } from './bench.ts'

test('reminders are read on real data, sent from the diary, heard of in the outbox; their wording is changed', async ({
  page,
}) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit8')
  await expect(page.getByRole('heading', { name: /^Due, not booked: / })).toBeVisible()
  await test.step('R shows each as it would go out, and why some would not', async () => {
    await page.keyboard.press('r')
    const dialog = page.getByRole('dialog', { name: 'Reminders of what is due' })
    await expect(dialog.getByText(/would suit us/).first()).toBeVisible()
    await expect(dialog.getByText(/does not want reminders/).first()).toBeVisible()
    await expectAccessible(page)
    const go = dialog.getByRole('button', { name: /^Send \d+/ })
    const count = Number(/\d+/.exec((await go.textContent()) ?? '')![0])
    expect(count).toBeGreaterThan(10)
    await dialog.getByRole('checkbox').and(page.locator(':enabled')).first().press('Space')
    await expect(dialog.getByRole('button', { name: `Send ${count - 1}` })).toBeVisible()
    await dialog.getByRole('button', { name: `Send ${count - 1}` }).press('Enter')
    await expect(page.getByText(`${count - 1} are on their way.`)).toBeVisible()
  })
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.keyboard.press('o')
  const messages = page.getByRole('list', { name: 'Outbox' }).getByRole('listitem')
  await test.step('they stand in the outbox with what became of them', async () => {
    await expect(messages.first()).toContainText(/waits until|on its way|sent|delivered/)
    expect(await messages.count()).toBeGreaterThan(10)
    await expectAccessible(page)
  })
  await test.step('a wording with an unknown field is told at the field; a good one is seen on real data and kept', async () => {
    const wording = page.getByRole('textbox', { name: 'Wording, English' })
    await wording.fill('Dear {{nmae}}')
    await expect(page.getByText(/Nothing is known as nmae/)).toBeVisible()
    await wording.fill('Hello {{name}}, {{what}} is due. {{shop}}')
    await expect(page.getByText(/would read it: Hello .* is due\. Saltmarsh Row Cycles/)).toBeVisible()
    await page.getByRole('button', { name: 'Say it so from now on' }).first().press('Enter')
    // What is kept cannot be kept again: that stays, where the word passes.
    await expect(page.getByRole('button', { name: 'Say it so from now on' }).first()).toBeDisabled()
    await page.reload()
    await expect(page.getByRole('textbox', { name: 'Wording, English' })).toHaveValue(
      'Hello {{name}}, {{what}} is due. {{shop}}',
    )
  })
  await page.getByRole('link', { name: 'To the diary' }).press('Enter')
  await expect(page.getByRole('heading', { name: /^Due, not booked: / })).toBeVisible()
  await page.keyboard.press('r')
  await expect(page.getByText(/reminded of that day already/).first()).toBeVisible()
})
