import { expect } from '@playwright/test'
import { endWord, expectAccessible, go, putOnStand, signIn, test } from './bench.ts'
import { begin, onward, toJob, work } from './jobKeys.ts'

test('a waxed 12-speed chain is changed by keyboard to its end, over a reload, with another tablet looking on', async ({
  page,
  browser,
}) => {
  test.setTimeout(150_000)
  await signIn(page)
  await putOnStand(page, 'noll fathom race', 'Noll Fathom')
  await toJob(page)
  await expectAccessible(page)
  await begin(page)
  const address = page.url()
  await page.keyboard.press('Space')
  await expect(page.getByRole('heading', { name: /^Count the old chain/ })).toBeVisible()
  await onward(page)
  await expect(page.getByRole('heading', { name: 'Find the joint and see what it is.' })).toBeVisible()
  await expectAccessible(page)
  await test.step('a reload and another tablet find it where it is', async () => {
    await page.reload()
    await expect(page.getByRole('heading', { name: 'Find the joint and see what it is.' })).toBeVisible()
    const other = await (await browser.newContext()).newPage()
    await signIn(other, 'ruan', 'chalkdown-2', true)
    await other.goto(address)
    await expect(other.getByRole('heading', { name: 'Find the joint and see what it is.' })).toBeVisible()
    await page.keyboard.press('1')
    await page.keyboard.press('Space')
    await expect(other.getByRole('heading', { name: /Shift to the smallest sprocket/ })).toBeVisible()
    await other.keyboard.press('n')
    await other.keyboard.type('stiff to shift before')
    await other.keyboard.press('Enter')
    await other.getByRole('button', { name: 'Take over from TS' }).press('Enter')
    await expect(page.getByText('stiff to shift before')).toBeVisible()
    await page.getByRole('button', { name: /^Take over from / }).press('Enter')
    await other.context().close()
  })
  const said = await work(page, {
    'Wax it': async () => {
      await page.keyboard.press('t')
      await expect(page.getByRole('timer')).toHaveText(/^2[45]:\d\d to go$/)
      await page.reload()
      await expect(page.getByRole('timer')).toHaveText(/^2[45]:\d\d to go$/)
      await page.getByRole('button', { name: 'Pause', exact: true }).press('Enter')
      await expect(page.getByText('Paused', { exact: true })).toBeVisible()
    },
    'watch for a hop': async () => {
      await page.getByRole('button', { name: 'a stiff link' }).press('Enter')
      await expect(page.getByRole('navigation', { name: 'Job' }).getByText(/Bend it sideways/)).toBeVisible()
    },
  })
  expect(said.some((one) => one.startsWith('Open the link'))).toBe(true)
  expect(said.some((one) => one.startsWith('Bend it sideways'))).toBe(true)
  const order = ['Strip the new chain', 'Wax it', 'Hang the new chain', 'Snap it home'].map((part) =>
    said.findIndex((one) => one.startsWith(part)),
  )
  expect(order.every((at, i) => at >= 0 && at > (order[i - 1] ?? -1))).toBe(true)
  await test.step('a link that clicks weakly does not close it, a firm one does', async () => {
    await page.keyboard.press('2')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Take a new one')
    await page.keyboard.press('1')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: /^Closed today/ })).toBeVisible()
  })
  await expect(page.getByText(/is on, \d+ pitches/)).toBeVisible()
  await endWord(page)
  await page.keyboard.press('b')
  await expect(page.getByRole('region', { name: 'Timeline' })).toContainText(/fitted/i)
})

test('a hub gear’s clip, an 8-speed with a pin and a broken chain each have their own steps', async ({ page }) => {
  test.setTimeout(200_000)
  await signIn(page)
  for (const { find, heading, reason, look, has, hasNot } of [
    {
      find: 'bakery van 3',
      heading: 'Oven & Tide Bakery',
      reason: '1',
      look: '4',
      has: ['Switch the motor off', 'Slacken the axle', 'slide it off', 'Set the tension|Pull the wheel back'],
      hasNot: ['upper pulley,'],
    },
    {
      find: 'island mail 3',
      heading: 'Island Mail',
      reason: '1',
      look: '3',
      has: ['Set the tool square on a pin', 'guide through from the far side', 'every gear by hand'],
      hasNot: ['Snap it home'],
    },
    {
      find: 'school pool 5',
      heading: 'Quay School',
      reason: '4',
      look: '1',
      has: ['bent plates, and where it broke', 'Draw the broken chain off'],
      hasNot: ['Count the old chain', 'Find the joint'],
    },
  ]) {
    await go(page, '/')
    await putOnStand(page, find, heading)
    await toJob(page)
    await begin(page, reason)
    const said = await work(page, { 'Find the joint': () => page.keyboard.press(look) })
    for (const one of has) expect(said.join('\n'), find).toMatch(new RegExp(one))
    for (const one of hasNot) expect(said.join('\n'), find).not.toContain(one)
    if (await page.getByRole('group', { name: 'How did the link click?' }).isVisible()) await page.keyboard.press('1')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: /^Closed today/ })).toBeVisible()
  }
  await test.step('and the last one is taken back', async () => {
    await page.getByRole('button', { name: 'Take it back' }).click()
    await page.getByLabel('Reason').fill('wrong bike')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('button', { name: /^Begin/ })).toBeVisible()
  })
})

test('a paused job gives up its stand to the next bike that waits, and is found again as it was', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'kerra keel race', 'Kerra Keel')
  await toJob(page)
  await test.step('Enter on a link follows it, and does not begin the job', async () => {
    await page.getByRole('link', { name: 'Other parts' }).press('Enter')
    await expect(page.getByRole('listbox', { name: 'Chains' })).toBeVisible()
    await page.goBack()
    await expect(page.getByRole('button', { name: /^Begin/ })).toBeVisible()
  })
  await begin(page)
  const address = page.url()
  await page.keyboard.press('Space')
  const step = await page.getByRole('heading', { level: 2 }).first().textContent()
  await test.step('Space on another button is that button’s', async () => {
    await page.getByRole('button', { name: 'Write a note N' }).press('Space')
    await page.keyboard.type('new tyres too')
    await page.keyboard.press('Enter')
    await expect(page.getByText('new tyres too')).toBeVisible()
    await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText(step ?? '')
  })
  await page.getByRole('button', { name: 'Pause, next bike on the stand' }).press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Kerra Keel')
  await expect(page.getByText(/on the stand since/).first()).toBeVisible()
  await go(page, address)
  await expect(page.getByText('Paused', { exact: true })).toBeVisible()
  await expect(page.getByRole('heading', { level: 2 }).first()).toHaveText(step ?? '')
})
