import { expect, test, type Page } from '@playwright/test'
import { putOnStand, signIn } from './bench.ts'

/** From the stand, once what was typed to find the bike is over: a letter that follows at once is one more of a name. */
async function toParts(page: Page): Promise<void> {
  await page.waitForTimeout(700)
  await page.keyboard.press('p')
  await expect(page.getByRole('listbox', { name: 'Chains' })).toBeVisible()
  await page.waitForTimeout(700)
}

test('parts for a derailleur bike are chosen by keyboard, with every reason', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'nell winter', 'Nell Quayle')
  await toParts(page)
  const chains = page.getByRole('listbox', { name: 'Chains' })
  const joints = page.getByRole('listbox', { name: 'Joints' })
  await expect(chains.getByRole('option', { selected: true })).toContainText('Korvane Ten')
  await expect(joints.getByRole('option', { selected: true })).toContainText('Link 10')
  await expect(page.getByRole('region', { name: /^Why: Korvane Ten/ })).toContainText(
    'Korvane names it for this system.',
  )

  await test.step('another chain, another joint', async () => {
    await page.keyboard.press('ArrowDown')
    await expect(chains.getByRole('option').nth(1)).toHaveAttribute('aria-selected', 'true')
    await page.keyboard.press('ArrowUp')
    await expect(chains.getByRole('option').nth(0)).toHaveAttribute('aria-selected', 'true')
    await page.keyboard.press('Shift+ArrowDown')
    await expect(joints.getByRole('option').nth(1)).toHaveAttribute('aria-selected', 'true')
  })
  await test.step('fewer pitches close gears, and say which', async () => {
    await expect(page.getByText('Every gear can be ridden.')).toBeVisible()
    await page.keyboard.press('ArrowLeft')
    await page.keyboard.press('ArrowLeft')
    await expect(page.getByRole('heading', { name: '108 pitches' })).toBeVisible()
    await expect(page.getByText(/Keep off the 2 largest sprockets while on the large ring/)).toBeVisible()
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('ArrowRight')
    await expect(page.getByText('Every gear can be ridden.')).toBeVisible()
  })
  await test.step('"will a nine do?" is answered by the same rules', async () => {
    await page.keyboard.press('a')
    await page.keyboard.type('mabry nine s')
    await expect(chains.getByRole('option').first()).toContainText('does not fit: speeds')
    await page.keyboard.press('Escape')
    await expect(chains.getByRole('option').first()).toContainText('Korvane Ten')
  })
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible()
})

test('a drive is described, a slip is named at its field with nothing lost, and the length follows', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'nell sand', 'Nell Quayle')
  await toParts(page)
  await expect(page.getByRole('heading', { name: /pitches$/ })).toBeVisible()
  await page.keyboard.press('e')
  const dialog = page.getByRole('dialog', { name: 'What is known of the drive' })
  await dialog.getByLabel('Chainstay, mm').fill('17.1')
  await dialog.getByLabel('Its level').fill('open sea')
  await page.keyboard.press('Enter')
  await expect(dialog.getByText(/looks like inches/)).toBeVisible()
  await expect(dialog.getByLabel('Its level')).toHaveValue('open sea')
  await dialog.getByLabel('Chainstay, mm').fill('four hundred')
  await page.keyboard.press('Enter')
  await expect(dialog.getByText('This is no number in range.')).toBeVisible()
  await dialog.getByLabel('Chainstay, mm').fill('470')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('heading', { name: '120 pitches' })).toBeVisible()
  // A box of 116 no longer holds it, and the drivetrain's own level comes first.
  await expect(
    page
      .getByRole('listbox', { name: 'Chains' })
      .getByRole('option', { name: /mind: length/ })
      .first(),
  ).toBeVisible()
})

test('a hub gear gets broad chains, its joints, and where the axle stands', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'bakery van 2', 'Oven & Tide Bakery')
  await toParts(page)
  const chosen = page.getByRole('listbox', { name: 'Chains' }).getByRole('option', { selected: true })
  await expect(chosen).toContainText('Broad')
  await expect(
    page
      .getByRole('listbox', { name: 'Joints' })
      .getByRole('option', { name: /Clip link/ })
      .first(),
  ).toContainText('fits')
  await expect(page.getByText(/^Axle at \d+\.\d mm/)).toBeVisible()
  await expect(page.getByRole('img', { name: /Chain to scale over 42 and 19 teeth/ })).toBeVisible()
})
