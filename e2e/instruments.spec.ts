import { expect, type Page } from '@playwright/test'
import { endWord, go, measure, putOnStand, signIn, test } from './bench.ts'

/** Takes an instrument from the wall by keyboard: to the wall, along it, and back to what is typed. */
async function takeInHand(page: Page, name: RegExp): Promise<void> {
  const chosen = page.getByRole('radio', { checked: true })
  await page.keyboard.press('Alt+i')
  await expect(chosen).toBeFocused()
  for (let i = 0; i < 10; i++) {
    const before = await chosen.innerText()
    if (name.test(before.replace(/\s+/g, ' '))) break
    await page.keyboard.press('ArrowRight')
    await expect.poll(() => chosen.innerText()).not.toBe(before)
  }
  await expect(page.getByRole('radio', { checked: true })).toHaveText(name)
  await page.keyboard.press('Enter')
}

const entry = (page: Page) => page.getByRole('textbox', { name: /^(Spot \d|Whole length)$/ })

test('each instrument is read by keyboard alone, drawn and judged as it is typed', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 2', 'Quay School')
  await measure(page)
  const live = page.getByTestId('live')
  const drawing = page.getByRole('region', { name: 'As typed' }).getByRole('img').nth(1)
  const readings: [RegExp, string, string, RegExp][] = [
    [/Steel rule, 600/, '204.6', '0.69 %', /16 pitches on the rule: 204.6 mm/],
    [/Caliper/, '127.4', '0.31 %', /Caliper over 10 pitches: 127.40 mm between the jaws/],
    [/blue handle/, 'io', '0.50 to 0.75 %', /0.50: drops in, 0.75: stays out/],
    [/Swing-arm/, 'end', 'over 1.00 %', /end of its travel, over 1.00 %/],
    [/Graduated/, '0.65', '0.65 %', /seats at the 0.65 mark/],
    [/Digital/, '0,62', '0.62 %', /It shows 0.62 %/],
  ]
  for (const [name, typed, says, drawn] of readings) {
    await takeInHand(page, name)
    await expect(entry(page)).toBeFocused()
    await page.keyboard.type(typed)
    await expect(page.locator('#spot-says')).toContainText(says)
    await expect(live).toContainText(/limit 0\.75/)
    await expect(drawing).toHaveAttribute('aria-label', drawn)
    await entry(page).fill('')
  }
  // How it is used is drawn, and closing that leaves what is typed where it was.
  await page.keyboard.press('Alt+h')
  await expect(page.getByRole('dialog', { name: 'Digital gauge: how it is done' }).getByRole('listitem')).toHaveCount(3)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await takeInHand(page, /Hook/)
  await page.keyboard.type('1378.0')
  await page.keyboard.press('Enter')
  // The count is always asked; Enter takes the recorded one.
  await expect(page.getByLabel('Count')).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('#spot-says')).toContainText('108 pitches')
  await expect(live).toContainText('Its length when new was never measured')
  await entry(page).fill('')
  await takeInHand(page, /By hand/)
  await page.keyboard.press('2')
  await expect(live).toContainText('A check by hand hinted that it is worn.')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Saved: /)).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.press('b')
  await expect(page.getByRole('region', { name: 'Timeline' }).getByText('By hand: bends sideways easily')).toBeVisible()
})

test('contradictions and slips are refused with the reason, and nothing typed is lost', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'quay school pool 10', 'Quay School')
  await measure(page)
  await takeInHand(page, /blue handle/)
  await page.keyboard.type('oi')
  await expect(page.getByText(/A mark cannot go in while a lower one stays out/)).toBeVisible()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(entry(page)).toHaveValue('oi')
  await takeInHand(page, /Digital/)
  await entry(page).fill('203.2')
  await expect(page.getByText(/That is a length\. This gauge shows elongation/)).toBeVisible()
  await takeInHand(page, /Graduated/)
  await entry(page).fill('0.62')
  await expect(page.getByText(/has a mark every 0\.05/)).toBeVisible()
  await takeInHand(page, /Caliper/)
  await page.keyboard.press('Alt+m')
  await entry(page).fill('119.6')
  await expect(page.locator('#spot-says')).toContainText('10 pitches')
  // Temperature says what it adds.
  await page.keyboard.press('Alt+o')
  await page.getByLabel('Chain', { exact: true }).fill('-5')
  await page.getByLabel('Instrument', { exact: true }).fill('20')
  await expect(page.getByText('Steel: temperature adds 0.029 % to the elongation.')).toBeVisible()
  await page.getByLabel('Chain', { exact: true }).fill('400')
  await expect(page.getByText('A workshop has −20 to 60 °C.')).toBeVisible()
})

test('five spots take no more keys than the numbers and Enter', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'island mail 5', 'Island Mail')
  await measure(page)
  await takeInHand(page, /Digital/)
  let presses = 0
  for (const typed of ['.31', '.35', '.33', '.4', '.36']) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
    presses += typed.length + 1
  }
  await expect(page.getByRole('button', { name: 'Place 4: 0.40' })).toBeVisible()
  await expect(page.getByText('spread 0.09 %')).toBeVisible()
  await expect(page.getByText('enough places')).toBeVisible()
  // A place is gone back to by its number.
  await page.keyboard.press('Alt+2')
  await expect(entry(page)).toHaveValue('.35')
  await page.keyboard.type('.34')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Spot 6' })).toBeFocused()
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  presses += 2
  await expect(page.getByText(/^Saved: keep riding/)).toBeVisible()
  test.info().annotations.push({ type: 'measured', description: `${presses} key presses for five spots` })
  expect(presses).toBeLessThanOrEqual(22)
})

test('a connected gauge fills the places by itself, and unplugging it loses nothing', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'island mail 6', 'Island Mail')
  await measure(page)
  await takeInHand(page, /Digital/)
  const strip = page.getByTestId('gauge')
  await expect(strip).toContainText('Connected', { timeout: 20_000 })
  await expect(strip).toContainText('Not zeroed since this bike was begun')
  await page.getByRole('button', { name: 'Zero it' }).click()
  await expect(strip).toContainText('zeroed at')
  const press = page.getByRole('button', { name: 'Press its button' })
  await press.click()
  await expect(page.getByRole('textbox', { name: 'Spot 2' })).toBeFocused()
  await press.click()
  await expect(page.getByRole('button', { name: /^Place 2: 0\.\d\d/ })).toBeVisible()
  // The tablet is loaded again in the middle of the round; meanwhile somebody presses the button once more.
  await press.click()
  await page.reload()
  await expect(page.getByText('Restored what you had typed here before.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Place 3: 0\.\d\d/ })).toBeVisible({ timeout: 20_000 })
  await expect(strip).toContainText('Connected', { timeout: 20_000 })
  await page.keyboard.press('Alt+4')
  await press.click()
  await expect(page.getByRole('button', { name: /^Place 4: 0\.\d\d/ })).toBeVisible()
  await page.getByRole('button', { name: /^Save reading/ }).click()
  await expect(page.getByText(/^Saved: /)).toBeVisible()
})

test('deciding otherwise stands beside the verdict', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'island mail 7', 'Island Mail')
  await measure(page)
  await takeInHand(page, /Steel rule, 600/)
  for (const typed of ['206.6', '206.4', '206.5']) {
    await page.keyboard.type(typed)
    await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Saved: change the chain.')).toBeVisible()
  await expect(page).toHaveURL(/\/\?bike=/)
  await page.keyboard.press('b')
  await expect(page.getByRole('button', { name: /^Decide otherwise/ })).toBeVisible()
  await endWord(page)
  await page.keyboard.press('d')
  await page.getByLabel('Run it on as a spare or training chain').check()
  await page.getByRole('dialog').getByLabel('Reason').fill('winter wheels only')
  await page.keyboard.press('Enter')
  const decisions = page.getByTestId('decisions')
  await expect(decisions).toContainText('Run it on as a spare or training chain: winter wheels only')
  await expect(decisions).toContainText('Tove Sandell')
  await expect(page.getByTestId('verdict')).toHaveText('Change the chain')
})

test('a gauge that reads late is found by a check, and corrected', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit9')
  await page.getByRole('button', { name: /red handle/ }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Drop-in gauge, red handle' })).toBeVisible()
  await expect(page.getByText(/less than Digital gauge/)).toBeVisible()
  await page.keyboard.press('c')
  for (const [i, [truly, shows]] of [
    ['0.5', 'oo'],
    ['0.62', 'io'],
    ['0.8', 'io'],
    ['0.88', 'ii'],
  ].entries()) {
    await page.getByLabel(`Place ${i + 1}: truly`).fill(truly ?? '')
    await page.getByLabel(`Place ${i + 1}: it shows`).fill(shows ?? '')
  }
  await expect(page.getByTestId('check-result')).toContainText('Reads late: 0.075')
  await page.getByRole('button', { name: 'Write the check' }).click()
  await expect(page.getByText('Check written to the record.')).toBeVisible()
  await expect(page.getByText(/^bias 0\.000 ± 0\.000 → −0\.075/)).toBeVisible()
})

test('a study is planned, entered blind and read', async ({ page }) => {
  await signIn(page)
  await go(page, '/gauges')
  await page.getByRole('button', { name: /Graduated/ }).click()
  await expect(page.getByRole('heading', { level: 2, name: 'Graduated gauge' })).toBeVisible()
  await page.getByRole('button', { name: 'Plan a study' }).click()
  await page.getByLabel('What it is called').fill('One afternoon')
  await page.getByLabel('Spots', { exact: true }).fill('2')
  await page.getByLabel('Times each').fill('2')
  await page.getByLabel(/^What is truly there/).fill('0.3 0.6')
  await page.getByRole('button', { name: 'Begin: 4 values' }).click()
  await expect(page.getByRole('heading', { name: 'One afternoon' })).toBeVisible()
  for (let i = 0; i < 4; i++) {
    const field = page.getByLabel(/^Spot [AB] shows$/)
    await expect(page.getByText(`value ${i + 1} of 4`)).toBeVisible()
    const spot = await field.getAttribute('aria-label').then(() =>
      page
        .getByText(/^[AB]$/)
        .first()
        .innerText(),
    )
    await field.fill(spot === 'A' ? (i < 2 ? '0.35' : '0.4') : '0.65')
    await page.keyboard.press('Enter')
  }
  await page.getByRole('button', { name: 'Close it and look' }).click()
  await expect(page.getByText(/One person only/)).toBeVisible()
  await expect(page.getByText(/^One person repeats to /)).toBeVisible()
  await expect(page.getByText(/too much, on 2 known spots/)).toBeVisible()
  await page.getByRole('button', { name: 'Write it to the record' }).click()
  await expect(page.getByRole('button', { name: 'Written to the record' })).toBeVisible()
})

test('the rule chart is for any counts, on screen and on paper', async ({ page }) => {
  await signIn(page)
  await go(page, '/rule-chart')
  const row = page.getByRole('row', { name: /^24/ })
  await expect(row).toContainText('306.3')
  await page.getByRole('button', { name: '32nds' }).click()
  await expect(row).toContainText('12 3/32')
  await page.getByLabel('Counts, in pitches').fill('24 x')
  await expect(page.getByText('A count is a whole number from 1 to 300.')).toBeVisible()
  await page.getByLabel('Counts, in pitches').fill('24 46')
  await expect(page.getByRole('row')).toHaveCount(3)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden()
  await expect(page.getByRole('button', { name: 'Print it' })).toBeHidden()
  await expect(page.getByText('Rule chart, inches and 32nds')).toBeVisible()
})
