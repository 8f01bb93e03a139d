import { expect, type Page } from '@playwright/test'
import { go, signIn, test } from './bench.ts'

/** Words nobody writes a catalogue for: units, and months and days as the browser has them. */
const EVERYWHERE = new Set(['km', 'mi', 'mm', 'kg', 'csv', 'gpx', 'tcx', 'fit', 'zip', 'pelrin'])
for (let i = 0; i < 12; i++)
  for (const day of [new Date(2026, i, 15), new Date(2026, 10, 1 + i)])
    for (const width of ['short', 'long'] as const)
      for (const part of [{ month: width }, { weekday: width }] as const)
        EVERYWHERE.add(new Intl.DateTimeFormat('en-GB', part).format(day).toLowerCase())
for (const word of ['ago', 'day', 'days', 'month', 'months', 'yesterday', 'today', 'tomorrow', 'last', 'this', 'next'])
  EVERYWHERE.add(word)

/** Every text in data that was answered, to tell it from words of ours. */
function dataOf(page: Page): Set<string> {
  const told = new Set<string>()
  const take = (value: unknown): void => {
    if (typeof value === 'string') for (const word of wordsOf(value)) told.add(word)
    else if (typeof value === 'object' && value !== null) Object.values(value).forEach(take)
  }
  page.on('response', (answer) => {
    if (answer.url().includes('/api/') && (answer.headers()['content-type'] ?? '').includes('json'))
      // One that is cut off by the next page told nothing.
      answer.json().then(take, () => undefined)
  })
  return told
}
const wordsOf = (text: string): string[] => text.toLowerCase().match(/\p{L}[\p{L}’'-]+/gu) ?? []

/** What stands on the page outside of any message, and messages that are cut off where nothing says the rest. */
const looked = (page: Page): Promise<{ plain: string[]; cut: string[] }> =>
  page.evaluate(() => {
    const plain = new Set<string>()
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    // A message may run on through several elements.
    let inside = 0
    while (texts.nextNode()) {
      const node = texts.currentNode
      let outside = ''
      for (const sign of node.textContent ?? '') {
        if (sign === '⟦') inside++
        else if (sign === '⟧') inside--
        else if (inside === 0) outside += sign
      }
      const parent = node.parentElement
      // Keys are called as they are printed on a keyboard.
      if (outside.trim() !== '' && parent && !parent.closest('kbd, script, style, noscript')) plain.add(outside.trim())
    }
    const cut = [...document.querySelectorAll<HTMLElement>('body *')].flatMap((element) => {
      const text = element.textContent
      const { overflow, textOverflow } = getComputedStyle(element)
      const hides = textOverflow === 'ellipsis' || overflow === 'hidden'
      return hides &&
        element.children.length < 4 &&
        element.clientWidth > 2 &&
        element.scrollWidth > element.clientWidth + 1 &&
        text.startsWith('⟦') &&
        element.title === ''
        ? [text.slice(0, 60)]
        : []
    })
    return { plain: [...plain], cut: [...new Set(cut)] }
  })

test('every text on every view is from the catalogue, and none is cut off where a language runs a third longer', async ({
  page,
}) => {
  test.setTimeout(150_000)
  await signIn(page)
  const found = (await (await page.request.get('/api/v1/find?q=sand%20racer')).json()) as { id: string }[]
  const bike = `/bikes/${found[0]?.id ?? ''}`
  const customers = (await (await page.request.get('/api/v1/customers?q=ivo')).json()) as { id: string }[]
  const customer = `/customers/${customers[0]?.id ?? ''}`
  const data = dataOf(page)
  await page.evaluate(() => localStorage.setItem('pelrin-language', 'en-XA'))
  await page.reload()
  const faults: Record<string, { foreign: string[]; cut: string[] }> = {}
  try {
    for (const path of [
      ...['/', '/rack', bike, ...['measure', 'distance', 'parts', 'job', 'chains'].map((way) => `${bike}/${way}`)],
      ...['care', 'other-wear', 'mend'].map((way) => `${bike}/${way}`),
      ...['/catalogue', '/orders', '/gauges', '/insight', '/rule-chart', '/pot', '/diary', '/messages', '/tags'],
      ...['limits', 'assumed', 'jobs', 'taking-out', 'backups', 'access', 'exceptions'].map(
        (tab) => `/house-rules?tab=${tab}`,
      ),
      ...['/new-bike', '/first-day', customer],
      ...['people', 'devices'].map((tab) => `/house-rules?tab=${tab}`),
    ]) {
      if (path.includes('?')) {
        await page.goto(path)
        await expect(page).toHaveTitle(/ – ⟦?Pelrin/)
        await expect(page.getByText('One moment …')).toHaveCount(0)
      } else await go(page, path)
      await expect(page.getByText('⟦').first()).toBeAttached()
      const seen = async () => {
        const { plain, cut } = await looked(page)
        return {
          cut,
          foreign: plain.filter((text) => wordsOf(text).some((word) => !EVERYWHERE.has(word) && !data.has(word))),
        }
      }
      let { cut, foreign } = await seen()
      // What the device had kept is shown before it is answered again: only the answer tells that it is data.
      for (let tries = 0; foreign.length > 0 && tries < 10; tries++) {
        await page.waitForTimeout(300)
        ;({ cut, foreign } = await seen())
      }
      if (foreign.length + cut.length > 0) faults[path] = { foreign, cut }
    }
  } finally {
    await page.evaluate(() => localStorage.removeItem('pelrin-language'))
    await page.reload()
  }
  expect(faults).toEqual({})
})
