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
    // What is drawn above it moves it down.
    await expect(one.getByText('Next look by')).toBeVisible()
    await one.getByRole('button', { name: 'Edit' }).click()
    await expect(one.getByRole('dialog')).toBeVisible()
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
  // The first time on a tablet a PIN is not enough.
  await page.getByLabel('PIN').fill('2280')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^The first time on this tablet/)).toBeVisible()
  await page.getByLabel('Password').fill('chalkdown-2')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'At this bench: Ruan Pike' })).toBeVisible()
  // What is the owner's is so no longer, whoever was here before.
  await page.goto('/house-rules')
  await expect(page.getByText('You can look here; changing something is for the owner.')).toBeVisible()
  await page.getByRole('button', { name: 'At this bench: Ruan Pike' }).click()
  await page.getByRole('menuitem', { name: 'Somebody else' }).click()
  await page.getByLabel('Initials').fill('ts')
  await page.getByLabel('PIN').fill('4071')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'At this bench: Tove Sandell' })).toBeVisible()
  // By PIN, the owner types the password before what is the owner's.
  await page.getByRole('tab', { name: 'Who was in' }).click()
  await expect(page.getByText('Wrong PIN for “RP”').first()).toBeVisible()
  await page.getByRole('tab', { name: 'In and out' }).click()
  await page.getByRole('link', { name: /^As CSV: customers/i }).click()
  const again = page.getByRole('dialog', { name: 'Your password again' })
  await again.getByRole('textbox', { name: 'Password' }).fill('causeway-1')
  const taken = page.waitForEvent('download')
  await page.keyboard.press('Enter')
  expect((await taken).suggestedFilename()).toBe('customers.csv')
})

test('a server that does not answer is told within five seconds, and what is typed stays', async ({ page }) => {
  await signIn(page)
  await page.route('**/health/ready', (route) => route.abort())
  await expect(page.getByText(/^Pelrin does not answer\. What you see may be out of date/)).toBeVisible({
    timeout: 5_000,
  })
  await page.unroute('**/health/ready')
  await page.route('**/health/ready', (route) =>
    route.fulfill({ status: 503, json: { status: 'no room on the disk' } }),
  )
  await expect(page.getByText(/^The disk Pelrin saves to is full/)).toBeVisible({ timeout: 5_000 })
  await page.unroute('**/health/ready')
  await expect(page.getByText(/^The disk Pelrin saves to is full/)).toBeHidden({ timeout: 5_000 })
  // A treatment is not kept on the device, and nobody says it is.
  await putOnStand(page, 'nell quayle sand', 'Nell Quayle')
  await page.keyboard.press('r')
  await expect(page.getByRole('heading', { level: 1, name: 'Nell Quayle' })).toBeVisible()
})

test('a write the server fails over again and again is set aside for the rest, and can be sent again or thrown away', async ({
  page,
}) => {
  await signIn(page)
  await putOnStand(page, 'island mail 4', 'Island Mail')
  await measure(page)
  await page.keyboard.type('305.4')
  let faults = 0
  await page.route('**/api/v1/readings', (route) => {
    faults++
    return route.fulfill({
      status: 500,
      contentType: 'application/problem+json',
      json: { type: '', title: '', status: 500, code: 'server-fault', detail: 'x', requestId: 'x' },
    })
  })
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: '1 was refused' })).toBeVisible({ timeout: 60_000 })
  expect(faults).toBe(5)
  await page.getByRole('button', { name: '1 was refused' }).click()
  await expect(page.getByText(/^Pelrin failed over this again and again/)).toBeVisible()
  await page.getByRole('button', { name: 'Throw it away' }).click()
  await expect(page.getByRole('dialog', { name: /^Throw away “Reading of Island Mail/ })).toBeVisible()
  await page.getByRole('button', { name: 'Keep it' }).click()
  await page.unroute('**/api/v1/readings')
  await page.getByRole('button', { name: 'Send it again' }).click()
  await expect(page.getByRole('button', { name: /was refused/ })).toBeHidden()
  await page.keyboard.press('Escape')
})

afresh('a browser that keeps nothing and has no locks still measures, and says what is not kept', async ({ page }) => {
  // As over plain HTTP from another machine, in a private window with its storage full.
  await page.addInitScript(() => {
    Object.defineProperty(navigator, 'locks', { value: undefined })
    Object.defineProperty(window, 'indexedDB', { value: undefined })
  })
  await signIn(page)
  await expect(page.getByText(/^This browser keeps nothing on the device/)).toBeVisible()
  await putOnStand(page, 'island mail 8', 'Island Mail')
  await measure(page)
  await page.keyboard.type('305.2')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Saved: /)).toBeVisible()
})
