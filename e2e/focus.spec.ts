import { expect, type Page } from '@playwright/test'
import { go, signIn, test } from './bench.ts'

/** Stops of the tab key that look with the focus as they do without, by their names. */
const unseen = (page: Page): Promise<{ stops: number; unseen: string[] }> =>
  page.evaluate(async () => {
    /** What follows from a focus is drawn within the same task. */
    const drawn = (): Promise<void> => Promise.resolve()
    /** What is seen of a stop: itself, the frame of its field, or the box it ticks. */
    const look = (stop: Element): string => {
      const field = stop.closest('.MuiInputBase-root, .MuiPickersInputBase-root')
      const around = [stop, stop.parentElement, field, field?.querySelector('fieldset')]
      return around
        .filter((one) => one !== null && one !== undefined)
        .filter((one) => getComputedStyle(one).opacity !== '0')
        .map((one) => {
          const { outlineStyle, outlineWidth, outlineColor, borderColor, borderWidth, top } = getComputedStyle(one)
          const ring = outlineStyle === 'none' ? 'none' : `${outlineStyle} ${outlineWidth} ${outlineColor}`
          return [ring, borderColor, borderWidth, top].join()
        })
        .join(' | ')
    }
    const all = document.querySelectorAll<HTMLElement>('a[href], button, input, select, textarea, [tabindex]')
    const reached = [...all].filter((one) => one.tabIndex >= 0 && !one.matches(':disabled') && one.checkVisibility())
    // What is styled alike is seen alike.
    const styled = (one: Element): string =>
      [one, one.parentElement].map((each) => `${each?.tagName} ${each?.className}`).join()
    const stops = [...new Map(reached.map((one) => [styled(one), one])).values()]
    const missed: string[] = []
    for (const stop of stops) {
      ;(document.activeElement as HTMLElement | null)?.blur()
      await drawn()
      const before = look(stop)
      stop.focus()
      await drawn()
      if (look(stop) === before) missed.push(`${stop.tagName} ${stop.ariaLabel ?? stop.textContent.slice(0, 40)}`)
    }
    return { stops: reached.length, unseen: missed }
  })

test('whoever works by keys sees where they are: on every view, at every stop', async ({ page }) => {
  test.setTimeout(240_000)
  await signIn(page)
  const [{ id } = { id: '' }] = (await (await page.request.get('/api/v1/find?q=mara%20lisk%20courier')).json()) as {
    id: string
  }[]
  const ofBike = ['', '/measure', '/parts', '/care', '/chains', '/distance', '/other-wear', '/job', '/mend']
  const shop = [
    '/',
    '/rack',
    '/pot',
    '/diary',
    '/gauges',
    '/insight',
    '/house-rules',
    '/catalogue',
    '/orders',
    '/messages',
  ]
  for (const path of [...shop, '/new-bike', ...ofBike.map((one) => `/bikes/${id}${one}`)]) {
    await go(page, path)
    await expect(page.getByRole('heading').first()).toBeVisible()
    await page.keyboard.press('Tab')
    const seen = await unseen(page)
    expect(seen.unseen, path).toEqual([])
    expect(seen.stops, path).toBeGreaterThan(12)
  }
})
