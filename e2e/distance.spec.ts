import { expect } from '@playwright/test'
import { go, putOnStand, signIn, test } from './bench.ts'

const DAY = 86_400_000
/** A ride of so many km within an hour, some days ago, as a device writes it. */
function gpx(daysAgo: number, km: number): string {
  const start = Math.floor(Date.now() / DAY) * DAY - daysAgo * DAY + 9 * 3_600_000
  const points = Array.from({ length: 121 }, (_, i) => {
    const latitude = 50 + (km / 111.195) * (i / 120)
    return `<trkpt lat="${latitude}" lon="-4"><time>${new Date(start + i * 30_000).toISOString()}</time></trkpt>`
  })
  return `<gpx version="1.1"><trk><trkseg>${points.join('')}</trkseg></trk></gpx>`
}

test('a bike says when its chain will be done, and a ride written down moves it, by keyboard', async ({ page }) => {
  await signIn(page)
  await putOnStand(page, 'nell sand racer', 'Nell Quayle')
  await page.keyboard.press('b')
  const forecast = page.getByTestId('forecast')
  await expect(forecast.getByText('Left to the limit')).toBeVisible()
  await expect(forecast.getByText(/km to .* km, 9 in 10/)).toBeVisible()
  await expect(page.getByRole('group', { name: /forecast to cross the limit of 0\.50 %/ })).toBeVisible()
  await page.getByRole('button', { name: 'Straight line' }).click()
  await expect(page.getByText(/that could be foretold .*% \(forecast\), .*% \(straight line\)/)).toBeVisible()

  await page.keyboard.press('k')
  await expect(page.getByRole('heading', { level: 1, name: 'Distance and rides' })).toBeVisible()
  const rides = page.getByRole('region', { name: /^\d+ rides?$/ })
  const before = await rides.getByRole('listitem').count()
  await page.getByLabel('Distance, km').fill('300')
  await page.keyboard.press('Enter')
  await expect(page.getByText('That is faster than anybody rides.')).toBeVisible()
  await page.getByLabel('Distance, km').fill('23,4')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Written down.')).toBeVisible()
  await expect(rides.getByRole('listitem')).toHaveCount(before + 1)
  await expect(rides.getByText('23.4 km')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('region', { name: 'Timeline' })).toBeVisible()
})

test('rides come in from files once, previewed before anything is written, and from a ride account', async ({
  page,
}) => {
  await signIn(page)
  const found = (await (await page.request.get('/api/v1/find?q=shopper')).json()) as { id: string }[]
  await go(page, `/bikes/${found[0]?.id ?? ''}/distance`)
  const rides = page.getByRole('region', { name: /^\d+ rides?$/ })
  await expect(page.getByRole('heading', { level: 1, name: 'Distance and rides' })).toBeVisible()
  const before = await rides.getByRole('listitem').count()
  const upload = (files: Record<string, string>): Promise<void> =>
    page.locator('input[type=file]').setInputFiles(
      Object.entries(files).map(([name, text]) => ({
        name,
        mimeType: 'application/gpx+xml',
        buffer: Buffer.from(text),
      })),
    )
  await upload({ 'quay.gpx': gpx(6, 14), 'sands.gpx': gpx(5, 21), 'broken.gpx': gpx(4, 9).slice(0, 500) })
  const lines = page.getByRole('list', { name: 'What came of each file' })
  await expect(lines.getByRole('listitem')).toHaveCount(3)
  await expect(lines.getByRole('listitem').filter({ hasText: 'broken.gpx' })).toContainText('breaks off in the middle')
  await expect(rides.getByRole('listitem')).toHaveCount(before)
  await page.getByRole('button', { name: 'Write 2 rides' }).click()
  await expect(rides.getByRole('listitem')).toHaveCount(before + 2)
  await upload({ 'again.gpx': gpx(6, 14) })
  await expect(lines).toContainText('in the ledger already')
  await expect(page.getByRole('button', { name: 'Nothing new to write' })).toBeDisabled()
  await page.getByRole('button', { name: 'Stop' }).click()

  await page.getByRole('textbox', { name: 'Account' }).fill('nell-quayle')
  await page.getByRole('textbox', { name: 'Token' }).fill('sandbank-3')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Pull now' }).click()
  await expect(page.getByText(/8 added, 0 changed/)).toBeVisible()
})

test('the forecast follows what is typed', async ({ page }) => {
  await signIn(page)
  const found = (await (await page.request.get('/api/v1/find?q=sand%20racer')).json()) as { id: string }[]
  await go(page, `/bikes/${found[0]?.id ?? ''}/measure`)
  await expect(page.getByRole('textbox', { name: 'Spot 1' })).toBeFocused()
  await page.keyboard.type('305.4')
  const left = page
    .getByTestId('forecast')
    .getByText(/^[\d,]+ km$/)
    .first()
  await expect(left).toBeVisible()
  const early = await left.innerText()
  await page.getByRole('textbox', { name: 'Spot 1' }).fill('305.6')
  await expect(left).not.toHaveText(early)
})
