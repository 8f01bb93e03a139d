import { expect, test as afresh } from '@playwright/test'
import { measure, putOnStand, signIn, test } from './bench.ts'

test('what was typed survives a reload', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'nell quayle sand', 'Nell Quayle')
  await measure(page)
  await page.keyboard.type('304.9')
  await page.keyboard.press('Enter')
  await page.keyboard.type('305.1')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.type('9000')
  await page.reload()
  await expect(page.getByText('Restored what you had typed here before.')).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Spot 1' })).toHaveValue('304.9')
  await expect(page.getByRole('button', { name: /^Place 2: 0\.1/ })).toBeVisible()
  await page.keyboard.press('Alt+2')
  await expect(page.getByRole('textbox', { name: 'Spot 2' })).toHaveValue('305.1')
  await expect(page.getByRole('textbox', { name: 'Odometer' })).toHaveValue('9000')
  await page.getByRole('button', { name: 'Start afresh' }).click()
  await expect(page.getByRole('textbox', { name: 'Spot 2' })).toHaveValue('')
})

test('a reading saved without a server is kept, and sent once when it is back', async ({ page }) => {
  const context = page.context()
  await signIn(page)
  await putOnStand(page, 'island mail 2', 'Island Mail')
  await measure(page)
  await page.keyboard.type('305.3')
  await context.setOffline(true)
  await expect(page.getByText(/^No connection/)).toBeVisible()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Kept on this device/)).toBeVisible()
  await expect(page.getByRole('button', { name: '1 waiting to be sent' })).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByRole('button', { name: /waiting to be sent/ })).toBeHidden({ timeout: 30_000 })
  await page.keyboard.press('b')
  await expect(page.getByRole('region', { name: 'Timeline' }).getByText('305.3 / 24')).toHaveCount(1)
})

afresh('a reading queued before the page closed is sent by the next', async ({ page, context }) => {
  await signIn(page)
  await putOnStand(page, 'island mail 6', 'Island Mail')
  await measure(page)
  await page.keyboard.type('305.6')
  await page.route('**/api/v1/readings', (route) => route.abort())
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Kept on this device/)).toBeVisible()
  await page.close()
  const next = await context.newPage()
  await next.goto('/')
  // It is on the stand still.
  await expect(next.getByRole('heading', { level: 1, name: 'Island Mail' })).toBeVisible()
  await next.keyboard.press('b')
  await expect(next.getByRole('region', { name: 'Timeline' }).getByText('305.6 / 24')).toHaveCount(1)
})

test('a refusal is shown at its field, and nothing typed is lost', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'island mail 7', 'Island Mail')
  await measure(page)
  const spot = page.getByRole('textbox', { name: 'Spot 1' })
  for (const [typed, says] of [
    ['abc', 'This is no length.'],
    ['204.6.1', 'There are two decimal signs.'],
    ['-204', 'A length cannot be negative.'],
    ['0', 'A length cannot be zero.'],
    ['10000', 'That is longer than any chain.'],
  ] as const) {
    await spot.fill(typed)
    await page.keyboard.press('Enter')
    await expect(page.getByText(says)).toBeVisible()
    await expect(spot).toHaveValue(typed)
    await expect(spot).toBeFocused()
  }
  await spot.fill('305.0')
  await page.getByRole('textbox', { name: 'Odometer' }).fill('1000000000')
  await page.keyboard.press('Enter')
  await expect(page.getByText('No bicycle has been ridden that far.')).toBeVisible()
  await expect(spot).toHaveValue('305.0')

  // The server has the last word, at the same field.
  await page.getByRole('textbox', { name: 'Odometer' }).fill('')
  await page.route('**/api/v1/readings', (route) =>
    route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      json: {
        type: '',
        title: '',
        status: 422,
        code: 'request-invalid',
        detail: '',
        requestId: 'x',
        fields: [{ path: 'spots.0.pitches', code: 'count-malformed', detail: '' }],
      },
    }),
  )
  await page.keyboard.press('Enter')
  await expect(page.getByText('A count is a whole number from 1 to 300.')).toBeVisible()
  await expect(spot).toHaveValue('305.0')
})

test('two people change one bike: the second sees what the first wrote', async ({ page, browser }) => {
  await signIn(page)
  const second = await (await browser.newContext({ baseURL: page.url().replace(/\/$/, '') })).newPage()
  await signIn(second, 'ruan', 'chalkdown-2')
  for (const one of [page, second]) {
    await putOnStand(one, 'bakery van 3', 'Oven & Tide Bakery')
    await one.keyboard.press('b')
    await one.getByRole('button', { name: 'Edit' }).click()
  }
  await page.getByLabel('Notes').fill('brake rubs')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('Saved.')).toBeVisible()
  await second.getByLabel('Notes').fill('new basket')
  await second.getByRole('button', { name: 'Save' }).click()
  await expect(second.getByRole('alert')).toContainText('Somebody changed this meanwhile')
  await expect(second.getByText('now: brake rubs')).toBeVisible()
  await expect(second.getByLabel('Notes')).toHaveValue('new basket')
  await second.getByRole('button', { name: 'Save' }).click()
  await expect(second.getByText('Saved.')).toBeVisible()
})

afresh('wrong passwords and unknown addresses say what to do', async ({ page }) => {
  await page.goto('/nowhere')
  await page.getByLabel('Name').fill('tove')
  await page.getByLabel('Password').fill('wrong')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Name and password do not go together. Check both.')).toBeVisible()
  await page.getByLabel('Password').fill('causeway-1')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'There is nothing at this address.' })).toBeVisible()
  await page.goto('/bikes/0192c7f2-5340-7b38-85ad-942ae19fa000')
  await expect(page.getByRole('alert')).toContainText('There is no such bike in this shop.')
})

afresh('another mechanic takes over by initials and PIN', async ({ page }) => {
  await signIn(page, 'tove', 'causeway-1', true)
  await page.getByRole('button', { name: 'At this bench: Tove Sandell' }).click()
  await page.getByRole('menuitem', { name: 'Somebody else' }).click()
  await page.getByLabel('Initials').fill('rp')
  await page.getByLabel('PIN').fill('1111')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Initials and PIN do not go together.')).toBeVisible()
  await page.getByLabel('PIN').fill('2280')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'At this bench: Ruan Pike' })).toBeVisible()
})
