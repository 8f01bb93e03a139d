import { expect, type Page } from '@playwright/test'
import { endWord, go, putOnStand, signIn, test } from './bench.ts'
import { begin, toJob, work } from './jobKeys.ts'

/** What stands of a chain's care, newest first. */
const soFar = (page: Page) => page.getByRole('list', { name: 'So far' }).getByRole('listitem')
const steps = (page: Page) => page.getByRole('region', { name: /^Steps, \d+ min of work/ })
/** The path of the bike that is open. */
const bikePath = (page: Page): string => new URL(page.url()).pathname.split('/').slice(0, 3).join('/')

async function toCare(page: Page, find: string, heading: string): Promise<void> {
  await go(page, '/')
  await putOnStand(page, find, heading)
  await endWord(page)
  await page.keyboard.press('t')
  await expect(page.getByRole('heading', { name: 'It was treated just now' })).toBeVisible()
  await endWord(page)
}

/** A link from stock that clicks firmly, by keys. */
async function newLinkClicks(page: Page): Promise<void> {
  const dialog = page.getByRole('dialog', { name: /^Back on: / })
  await expect(dialog).toBeVisible()
  if (!(await dialog.getByRole('radiogroup').isVisible())) await page.keyboard.press('n')
  await expect(dialog.getByRole('radio').first()).toContainText(/in stock/)
  await page.keyboard.press('1')
  await expect(dialog).toBeHidden()
}

test('a chain is waxed again after a wash: boiled, dried, waxed, and its link counted once more', async ({ page }) => {
  await signIn(page)
  await toCare(page, 'orla eddy race', 'Orla Eddy')
  await page.keyboard.press('w')
  await expect(page.getByText('Dry it and treat it now: it was washed')).toBeVisible()
  const kind = page.getByRole('region', { name: 'What kind of waxing this is' })
  await expect(kind).toContainText('Rewax after a wet ride')
  await expect(steps(page)).toContainText(/boiling water/i)
  await expect(steps(page)).toContainText(/Dry it right through/)
  await page.keyboard.press('1')
  const dialog = page.getByRole('dialog', { name: /^Back on: / })
  await expect(dialog).toBeVisible()
  await page.keyboard.press('1')
  await expect(dialog).toBeHidden()
  await expect(soFar(page).first()).toContainText('immersion wax, boiling water, Tove Sandell')
  await expect(kind).toContainText('Rewax after dry rides')
})

test('a pin-joined chain joins the wax routine: two neighbouring pins, a link from stock, its first closing', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'una haven ferry', 'Una Haven')
  await endWord(page)
  await test.step('somebody looks: it is closed by a pin', async () => {
    await page.keyboard.press('p')
    await expect(page.getByRole('listbox', { name: 'Chains' })).toBeVisible()
    await endWord(page)
    await page.keyboard.press('j')
    await expect(page.getByRole('dialog', { name: 'What is it closed with now?' })).toBeVisible()
    await page.keyboard.press('2')
    await page.getByRole('button', { name: 'Keep it' }).press('Enter')
    await expect(page.getByRole('dialog')).toBeHidden()
  })
  const bike = bikePath(page)
  await go(page, `${bike}/care`)
  await page.getByRole('button', { name: /immersion wax/ }).focus()
  await expect(page.getByRole('region', { name: 'What kind of waxing this is' })).toContainText('First wax')
  await expect(steps(page)).toContainText('Now the next pin of the same outer link')
  await page.keyboard.press('1')
  await newLinkClicks(page)
  await expect(soFar(page).first()).toContainText('immersion wax, stripped')
  await go(page, `${bike}/chains`)
  await expect(page.getByText(/Link.*closed (once|1 of [2-9])/).first()).toBeVisible()
})

test('a new chain skips: a cassette is fitted, and stands in the timeline with what it cost', async ({ page }) => {
  test.setTimeout(150_000)
  await signIn(page)
  await putOnStand(page, 'cass inlet tourer', 'Cass Inlet')
  await toJob(page)
  const bike = bikePath(page)
  await begin(page)
  const said = await work(page, {
    'Find the joint': () => page.keyboard.press('1'),
    'Ride it hard': async () => {
      await page.getByRole('button', { name: 'skips: fit a cassette' }).press('Enter')
      await expect(page.getByRole('navigation', { name: 'Job' }).getByText(/Fit a new cassette/)).toBeVisible()
    },
  })
  expect(said.some((one) => one.startsWith('Fit a new cassette'))).toBe(true)
  await page.getByRole('combobox', { name: 'Which one' }).press('Enter')
  await page
    .getByRole('option', { name: /in stock/ })
    .first()
    .press('Enter')
  if (await page.getByRole('group', { name: 'How did the link click?' }).isVisible()) await page.keyboard.press('1')
  await page
    .getByRole('button', { name: /^Close the job/ })
    .first()
    .press('Enter')
  await expect(page.getByRole('heading', { name: /^Closed today/ })).toBeVisible()
  await go(page, bike)
  await expect(page.getByRole('region', { name: 'Timeline' })).toContainText(/Cassette/)
  await go(page, `${bike}/other-wear`)
  const row = page.getByRole('list', { name: 'Other wear' }).getByRole('listitem').filter({ hasText: 'Cassette' })
  await expect(row).toContainText(/0 (km|mi) on it/)
})
