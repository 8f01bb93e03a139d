import { expect, test as afresh } from '@playwright/test'
import { endWord, go, measure, odometerOn, putOnStand, signIn, test } from './bench.ts'

afresh('one reading, from the rule to the verdict, without a mouse', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByLabel('Name')).toBeFocused()
  await page.keyboard.type('ruan')
  await page.keyboard.press('Tab')
  await page.keyboard.type('chalkdown-2')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^In today/ })).toBeVisible()

  const odometer = await odometerOn(page, 'jory ledge', 240)
  // A mechanic types at about four keys a second; what is asked for is under fifteen.
  const started = Date.now()
  let presses = 0
  const type = async (text: string): Promise<void> => {
    presses += text.length
    await page.keyboard.type(text, { delay: 180 })
  }
  const press = async (key: string): Promise<void> => {
    presses++
    await page.keyboard.press(key)
    await page.waitForTimeout(180)
  }
  await type('jory led')
  await press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: 'Jory Ledge' })).toBeVisible()
  await press('m')
  await type('203.9')
  await press('Enter')
  await press('Enter')
  await type(odometer)
  await press('Enter')
  await expect(page.getByText(/^Saved: /)).toBeVisible()
  const seconds = (Date.now() - started) / 1000
  test.info().annotations.push({ type: 'measured', description: `${presses} key presses, ${seconds.toFixed(1)} s` })
  expect(presses).toBeLessThan(30)

  // At once on the stand, …
  await expect(page.getByText('Measured today.')).toBeVisible()
  await expect(page.getByRole('img', { name: /^Wear rule: .*0\.34 %/ }).first()).toBeVisible()
  // … on the bike's timeline, …
  await page.keyboard.press('b')
  const timeline = page.getByRole('region', { name: 'Timeline' })
  await expect(timeline.getByText('203.9 / 16').first()).toBeVisible()
  await expect(
    timeline.getByText(new RegExp(`Ruan Pike, Steel rule.*${Number(odometer).toLocaleString('en')} km`)),
  ).toBeVisible()
  // … and in the rack.
  await page.keyboard.press('Shift+Digit2')
  await page.getByRole('textbox', { name: 'Customer, tag, frame mark' }).fill('jory led')
  await expect(page.getByRole('row', { name: /Jory Ledge/ }).filter({ hasText: 'today' })).toHaveCount(1)
})

test('while typing, rule and verdict follow each key', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 7', 'Quay School')
  await measure(page)
  const live = page.getByTestId('live')
  const drawing = page.getByRole('img', { name: /pitches on the rule|waiting for a length/ })
  await expect(drawing).toHaveAttribute('aria-label', 'A rule, waiting for a length')
  for (const [text, says] of [
    ['204.6', '0.69 %'],
    ['204,6', '0.69 %'],
    ['12 3/32', '0.78 %'],
    ['8.05in', '0.63 %'],
    ['12in +3/32', '0.78 %'],
  ] as const) {
    await page.getByRole('textbox', { name: 'Spot 1' }).fill('')
    await page.keyboard.type(text)
    await expect(live).toContainText(says)
    await expect(live).toContainText(/limit 0\.75 by speeds\. When measured: \d+ in 100/)
    await expect(drawing).toHaveAttribute('aria-label', /^\d+ pitches on the rule/)
    await expect(page.getByTestId('verdict')).toBeVisible()
  }
  await page.getByRole('textbox', { name: 'Spot 1' }).fill('206.5')
  await expect(page.getByTestId('verdict')).toHaveText('Change the chain')
})

test('a count left out is offered, and one key picks', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 4', 'Quay School')
  await measure(page)
  await page.keyboard.type('2600')
  const choices = page.getByRole('group', { name: 'Which count was it?' })
  await expect(choices.getByRole('button')).toHaveText([/200 pitches/, /202 pitches/, /204 pitches/])
  await page.keyboard.press('Enter')
  await page.keyboard.press('3')
  await expect(page.locator('#spot-says')).toContainText('0.36 %')
  await page.getByRole('textbox', { name: 'Spot 1' }).fill('90')
  await expect(choices.getByRole('button')).toHaveText([/7 pitches, odd/])
  await page.getByRole('textbox', { name: 'Spot 1' }).fill('96')
  await expect(page.getByText(/Fits no even count: 6 pitches would be/)).toBeVisible()
})

test('an odometer lower than last time is asked about, not refused', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 6', 'Quay School')
  await measure(page)
  await page.keyboard.type('203.6')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.type('7')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Lower than last time/)).toBeVisible()
  await page.keyboard.press('1')
  await expect(page.getByText(/^Saved: /)).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.press('b')
  await expect(page.getByRole('region', { name: 'Timeline' }).getByText(/Steel rule.*, 7 km/)).toBeVisible()
})

test('a mistyped reading is corrected, and the old value stays beneath', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 8', 'Quay School')
  await measure(page)
  await page.keyboard.type('206.4')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Saved: change the chain.')).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.press('b')
  await expect(page.getByRole('button', { name: /^Correct C/ })).toBeVisible()
  await endWord(page)
  await page.keyboard.press('c')
  const spot = page.getByRole('textbox', { name: 'Spot 1' })
  await expect(spot).toHaveValue('206.4')
  await spot.fill('203.4')
  await page.getByLabel('Why is it corrected?').fill('read from the plate, not the pin')
  await page.keyboard.press('Enter')
  const timeline = page.getByRole('region', { name: 'Timeline' })
  await expect(timeline.getByText('203.4 / 16', { exact: true })).toBeVisible()
  await expect(timeline.getByText('corrected: read from the plate, not the pin')).toBeVisible()
  await expect(timeline.locator('s')).toContainText('206.4')
  await expect(page.getByTestId('verdict')).not.toHaveText('Change the chain')
})

test('every number says why', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'ivo marsh', 'Ivo Marsh')
  await page.keyboard.press('w')
  const why = page.getByRole('dialog', { name: 'Why?' })
  // The answer first, in one sentence; then the step that decided; formulas one key further.
  await expect(why.getByTestId('answer')).toContainText(/^Because/)
  await expect(why).toContainText('Over beyond doubt?')
  await expect(why).not.toContainText('P ≥')
  await page.keyboard.press('f')
  await expect(why).toContainText('P ≥')
  await expect(why).toContainText('Rule in force: by speeds, version 1.')
  await page.keyboard.press('Escape')
  await expect(why).toBeHidden()
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Why\?/ })
    .click()
  await expect(why).toContainText('on dry roads')
})

test('a key that begins a name still finds it', async ({ page }) => {
  await signIn(page)
  // "m" measures and "b" opens the record; "mara" and "bram" are names.
  await page.keyboard.type('mara', { delay: 60 })
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: 'Mara Lisk' })).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.type('bram', { delay: 60 })
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: 'Bram Fenn' })).toBeVisible()
})

test('the line-up is walked and put in order by keys', async ({ page }) => {
  await signIn(page, 'ismay', 'eelgrass-3')
  const rows = page.getByRole('region', { name: 'In today' }).getByRole('listitem')
  const chosen = page.locator('[aria-current="true"]')
  const name = 'School pool 7'
  await expect(rows.filter({ hasText: name })).toHaveCount(1)
  const labels = async (): Promise<string[]> =>
    (await rows.allInnerTexts()).map((text) => text.split('\n')[2]?.split(',')[0] ?? '')
  const before = await labels()
  const neighbour = before[before.indexOf(name) - 1] ?? ''
  for (let i = 0; i < 40 && !(await chosen.innerText()).includes(name); i++) {
    const there = await chosen.innerText()
    await page.keyboard.press('ArrowDown')
    await expect.poll(() => chosen.innerText()).not.toBe(there)
  }
  await expect(chosen).toContainText(name)
  await page.keyboard.press('Alt+ArrowUp')
  await expect
    .poll(async () => {
      const after = await labels()
      return after.indexOf(name) < after.indexOf(neighbour)
    })
    .toBe(true)
  await page.keyboard.press('Enter')
  await expect(chosen).toContainText('on the stand since')
  await page.keyboard.press('Alt+d')
  await expect(chosen).toContainText('done')
})

test('an odometer corrected to a lower value is asked about as well', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 12', 'Quay School')
  await measure(page)
  await page.keyboard.type('203.5')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.type(await odometerOn(page, 'school pool 12', 70_000))
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^That is far for a bike/)).toBeVisible()
  await page.keyboard.press('1')
  await expect(page.getByText(/^Saved: /)).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.press('b')
  await expect(page.getByRole('button', { name: /^Correct C/ })).toBeVisible()
  await endWord(page)
  await page.keyboard.press('c')
  await expect(page.getByRole('textbox', { name: 'Spot 1' })).toHaveValue('203.5')
  await page.getByRole('textbox', { name: 'Odometer' }).fill('6')
  await page.getByLabel('Why is it corrected?').fill('a digit too many')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Say whether the odometer began again, or let it stand.')).toBeVisible()
  await page.getByRole('button', { name: /Let it stand/ }).click()
  const timeline = page.getByRole('region', { name: 'Timeline' })
  await expect(timeline.getByText('corrected: a digit too many')).toBeVisible()
  await expect(timeline.getByText(/Steel rule.*, 6 km/)).toBeVisible()
})

test('a slash opens the finder from any place, and Escape leaves it', async ({ page }) => {
  await signIn(page)
  await go(page, '/diary')
  const finder = page.getByRole('combobox', { name: 'Find a bike' })
  await page.keyboard.press('/')
  await expect(finder).toBeFocused()
  await page.keyboard.type('0400', { delay: 15 })
  await expect(page.getByRole('option', { name: /Ivo Marsh/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(finder).toHaveValue('')
  await expect(finder).not.toBeFocused()
})
