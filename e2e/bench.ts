import AxeBuilder from '@axe-core/playwright'
import { expect, test as base, type Cookie, type Page } from '@playwright/test'

/** The tablet at the bench: open all day, one test after the other, as it is in a shop. */
let tablet: Page | null = null
/** Who is signed in there. */
let atTablet: string | null = null

/** For tests that do not want a device nobody has used before: opening the application anew takes longer than most of them. */
export const test = base.extend({
  page: async ({ browser }, use, info) => {
    if (tablet === null || tablet.isClosed()) {
      tablet = await (await browser.newContext()).newPage()
      atTablet = null
    }
    await use(tablet)
    if (info.status === info.expectedStatus) await clearUp(tablet)
    else {
      await tablet.context().close()
      tablet = null
    }
  },
})

/** Leaves the tablet as the next wants to find it: nothing open, nothing half typed. */
async function clearUp(page: Page): Promise<void> {
  page.removeAllListeners()
  // Nothing that was said is refused behind anybody's back.
  await expect(page.getByRole('button', { name: /were refused|was refused/ })).toHaveCount(0)
  await page.unrouteAll({ behavior: 'ignoreErrors' })
  await page.emulateMedia({ media: null, colorScheme: null })
  await page.setViewportSize({ width: 1280, height: 800 })
  const typed = await page.evaluate(async () => {
    localStorage.clear()
    sessionStorage.clear()
    return new Promise<number>((done) => {
      const opened = indexedDB.open('pelrin-drafts')
      opened.onerror = () => done(0)
      opened.onsuccess = () => {
        const drafts = opened.result.transaction('drafts', 'readwrite').objectStore('drafts')
        const count = drafts.count()
        drafts.clear()
        count.onsuccess = () => done(count.result)
        drafts.transaction.oncomplete = () => opened.result.close()
      }
    })
  })
  // The page has them in memory too.
  if (typed > 0) await page.reload()
}

/** Sessions of those who signed in before in this run: most tests are not about signing in. */
const sessions = new Map<string, Cookie[]>()

/** @param afresh signs in by hand, on a device of its own, for tests that change the session itself */
/** Types a day into its field, as its parts are written. */
export async function typeDay(page: Page, label: string, day: Date): Promise<void> {
  await page.getByRole('group', { name: label, exact: true }).getByRole('spinbutton').first().click()
  await page.keyboard.type(day.toISOString().slice(0, 10).split('-').reverse().join(''))
}

export async function signIn(page: Page, name = 'tove', password = 'causeway-1', afresh = false): Promise<void> {
  if (page === tablet && atTablet === name && !afresh) {
    // Through another place, so that nothing stays open from the test before.
    await go(page, '/rule-chart')
    await go(page, '/')
    await endWord(page)
    await expect(page.getByRole('heading', { name: /^In today/ })).toBeVisible()
    return
  }
  const known = afresh ? undefined : sessions.get(name)
  await page.context().clearCookies()
  if (known) await page.context().addCookies(known)
  await page.goto('/')
  if (!known) {
    await page.getByLabel('Name').fill(name)
    await page.getByLabel('Password').fill(password)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByRole('heading', { name: /^In today/ })).toBeVisible()
  if (page === tablet) atTablet = name
  if (!afresh) sessions.set(name, await page.context().cookies())
}

/** Finds a bike by typing anywhere, as on the stand, and puts it there. */
export async function putOnStand(page: Page, text: string, heading: string): Promise<void> {
  const put = page.waitForRequest(
    (asked) => asked.method() === 'POST' && new URL(asked.url()).pathname === '/api/v1/stand',
  )
  await page.keyboard.type(text, { delay: 15 })
  await page.keyboard.press('Enter')
  const { bikeId } = (await put).postDataJSON() as { bikeId: string }
  // Another bike of the same customer may have been there: what is pressed next goes to this one.
  await expect(page.locator(`nav a[href="/bikes/${bikeId}"]`)).toBeVisible()
  // The bike may be on the stand already: only an empty finder says that it was found.
  await expect(page.getByRole('combobox', { name: 'Find a bike' })).toHaveValue('')
  await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
  await expect(page.getByText(/on the stand since/).first()).toBeVisible()
}

/** What a bike's odometer would show so many km on from what it last showed, as typed: the shop's story is drawn, not told. */
export async function odometerOn(page: Page, text: string, km: number): Promise<string> {
  const found = (await (await page.request.get(`/api/v1/find?q=${encodeURIComponent(text)}`)).json()) as {
    id: string
  }[]
  const bike: unknown = await (await page.request.get(`/api/v1/bikes/${found[0]?.id ?? ''}`)).json()
  const { lastOdometer } = bike as { lastOdometer: { km: number } | null }
  if (lastOdometer === null) throw new Error(`${text} has no odometer`)
  return String(Math.round(lastOdometer.km + km))
}

/** A letter that follows another at once goes on with a name; after any other key it is one of its own again. */
export const endWord = (page: Page): Promise<void> => page.keyboard.press('Control')

/** To another place without loading the application anew, as its own links and keys go. */
export async function go(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    if (location.pathname === to) return
    document.title = ''
    history.pushState(null, '', to)
    dispatchEvent(new PopStateEvent('popstate'))
  }, path)
  // Each place has a name of its own, and says when it waits for something.
  await expect(page).toHaveTitle(/ – ⟦?Pelrin/)
  await expect(page.getByText('One moment …')).toHaveCount(0)
}

/** No violation of WCAG 2.2 AA that a machine can find; or of contrast only, where nothing but colours differs. */
export async function expectAccessible(page: Page, only: 'all' | 'contrast' = 'all'): Promise<void> {
  // Nothing here has frames, for whose sake all would be gone over twice, the second time in a page of its own.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({
    // Only what is wrong is told; style sheets are the page's own.
    resultTypes: ['violations'],
    preload: false,
    runOnly:
      only === 'contrast'
        ? { type: 'rule', values: ['color-contrast'] }
        : { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] },
  })
  const { violations } = await axe.analyze()
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(' | ')}`)).toEqual(
    [],
  )
}

/** From the stand to the first field of Measure, ready to be typed into. */
export async function measure(page: Page): Promise<void> {
  await page.keyboard.press('m')
  await expect(page.getByRole('textbox', { name: 'Spot 1' })).toBeFocused()
}
