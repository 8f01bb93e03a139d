import { expect, test as afresh, type Page } from '@playwright/test'
import { endWord, expectAccessible, go, measure, putOnStand, signIn, test } from './bench.ts'

/** By every rule, and by what colours change once more in the dark. */
async function inLightAndDark(page: Page): Promise<void> {
  await expectAccessible(page)
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect(page.locator('html')).toHaveAttribute('data-light', 'dark')
  await expectAccessible(page, 'contrast')
  await page.emulateMedia({ colorScheme: 'light' })
  await expect(page.locator('html')).toHaveAttribute('data-light', 'light')
}

afresh('every view is accessible, in light and dark', async ({ page }) => {
  afresh.setTimeout(360_000)
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Pelrin' })).toBeVisible()
  await inLightAndDark(page)
  await signIn(page)
  await putOnStand(page, 'ivo marsh', 'Ivo Marsh')
  await inLightAndDark(page)
  await page.keyboard.type('nel', { delay: 15 })
  await expect(page.getByRole('option').first()).toBeVisible()
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await page.keyboard.press('?')
  const sections = page.getByRole('dialog', { name: 'Keys' }).getByRole('heading', { level: 3 })
  await expect(sections.nth(1)).toHaveText('On the stand')
  await expect(sections).toContainText(['Anywhere', 'On the stand', 'In Care', 'At the pot', 'In Diary'])
  await expectAccessible(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('option', { name: /^why this verdict/ })).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.type('why')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Why?' })).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toBeHidden()
  await measure(page)
  await page.keyboard.type('204.6')
  await expect(page.getByTestId('verdict')).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.press('Escape')
  await endWord(page)
  await page.keyboard.press('b')
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.press('p')
  await expect(page.getByRole('listbox', { name: 'Chains' })).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible()
  await page.keyboard.press('k')
  await expect(page.getByRole('heading', { level: 1, name: 'Distance and rides' })).toBeVisible()
  await inLightAndDark(page)
  await page.keyboard.press('Shift+Digit2')
  await expect(page.getByRole('table')).toBeVisible()
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused()
  await inLightAndDark(page)
  await go(page, '/gauges')
  await expect(page.getByRole('heading', { level: 2 })).toBeVisible()
  await inLightAndDark(page)
  await page.getByRole('button', { name: /Digital gauge/ }).click()
  await page.getByRole('link', { name: 'After the new battery' }).click()
  await expect(page.getByRole('region', { name: 'Analysis of variance' })).toBeVisible()
  await inLightAndDark(page)
  for (const [path, heading] of [
    ['/catalogue', 'Catalogue and stock'],
    ['/orders', 'Orders'],
    ['/rule-chart', 'Rule chart'],
    ['/insight', 'Insight'],
    ['/house-rules', 'House rules'],
  ] as const) {
    await go(page, path)
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
    await inLightAndDark(page)
  }
  await go(page, '/house-rules')
  await page.getByRole('tab', { name: 'What is assumed' }).click()
  await expectAccessible(page)
  // Places with tests of their own are looked at in the light there.
  await page.emulateMedia({ colorScheme: 'dark' })
  const found = (await (await page.request.get('/api/v1/find?q=mara%20lisk%20courier')).json()) as { id: string }[]
  const bike = `/bikes/${found[0]?.id ?? ''}`
  const ofBike = ['care', 'chains', 'other-wear', 'mend', 'job', 'sheets/customer'].map((path) => `${bike}/${path}`)
  for (const path of [...ofBike, '/pot', '/diary', '/messages']) {
    await go(page, path)
    await expectAccessible(page, 'contrast')
  }
})

test('the rack is filtered, walked by keys, and scrolls to its end', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit2')
  const table = page.getByRole('table')
  await expect(table.getByRole('row').nth(1)).toContainText('Change the chain')
  await page.keyboard.press('ArrowDown')
  await expect(table.locator('[aria-selected="true"]')).toHaveAttribute('aria-rowindex', '3')
  await page.getByRole('button', { name: /^Closing in/ }).click()
  await expect(table.getByRole('row').nth(1)).toContainText('Closing in')
  await page.getByRole('button', { name: /^All/ }).click()
  await expect(page.getByText('119 bikes')).toBeVisible()
  // What is further down is fetched on the way.
  await expect(async () => {
    await page.keyboard.press('PageDown')
    await expect(table.locator('[aria-rowindex="120"]')).toBeVisible({ timeout: 250 })
  }).toPass()
  // Only what is seen is drawn.
  expect(await table.getByRole('row').count()).toBeLessThan(60)
})

/** Pairs of things to press that lie over each other, as far as both are in sight. */
const collisions = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const inSight = (element: Element): DOMRect => {
      const own = element.getBoundingClientRect()
      let [left, top, right, bottom] = [own.left, own.top, own.right, own.bottom]
      for (let at = element.parentElement; at; at = at.parentElement) {
        if (getComputedStyle(at).overflow === 'visible') continue
        const frame = at.getBoundingClientRect()
        left = Math.max(left, frame.left)
        top = Math.max(top, frame.top)
        right = Math.min(right, frame.right)
        bottom = Math.min(bottom, frame.bottom)
      }
      return new DOMRect(left, top, Math.max(0, right - left), Math.max(0, bottom - top))
    }
    const pressed = [...document.querySelectorAll('main :is(a, button, [role=option], [role=combobox])')]
    const boxes = pressed.map(inSight)
    const name = (element: Element): string => (element.getAttribute('aria-label') ?? element.textContent).slice(0, 40)
    return boxes.flatMap((a, i) =>
      boxes.slice(i + 1).flatMap((b, k) => {
        const [one, other] = [pressed[i]!, pressed[i + 1 + k]!]
        if (one.contains(other) || other.contains(one)) return []
        const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left)
        const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
        return wide > 3 && high > 3 ? [`${name(one)} × ${name(other)}`] : []
      }),
    )
  })

for (const [name, width, height] of [
  ['a tablet upright', 800, 1280],
  ['a phone', 390, 844],
  ['a screen at 200 %', 640, 400],
  ['a screen at 400 %', 320, 200],
] as const)
  test(`nothing is cut off, and nothing lies over another, on ${name}`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await signIn(page)
    const found = (await (await page.request.get('/api/v1/find?q=sand%20racer')).json()) as { id: string }[]
    const bike = `/bikes/${found[0]?.id ?? ''}`
    for (const path of [
      '/',
      '/rack',
      bike,
      `${bike}/measure`,
      `${bike}/distance`,
      `${bike}/parts`,
      `${bike}/job`,
      `${bike}/chains`,
      `${bike}/care`,
      `${bike}/other-wear`,
      `${bike}/mend`,
      `${bike}/sheets/customer`,
      `${bike}/sheets/carry-card`,
      '/catalogue',
      '/orders',
      '/gauges',
      '/insight',
      '/house-rules',
      '/rule-chart',
      '/pot',
      '/diary',
      '/messages',
      '/tags',
      '/new-bike',
      '/first-day',
    ]) {
      await go(page, path)
      const wider = await page.evaluate(() => {
        const main = document.querySelector('main')!
        return Math.max(document.documentElement.scrollWidth - window.innerWidth, main.scrollWidth - main.clientWidth)
      })
      expect(wider, path).toBeLessThanOrEqual(0)
      expect(await collisions(page), path).toEqual([])
    }
  })
