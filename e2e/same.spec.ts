import { expect } from '@playwright/test'
import { go, measure, odometerOn, putOnStand, signIn, test } from './bench.ts'

/** What a place says of verdict and forecast: the sentence, and the numbers of the forecast. */
async function said(
  page: Parameters<typeof signIn>[0],
): Promise<{ verdict: string; sentence: string; numbers: number[] }> {
  const forecast = page.getByTestId('forecast')
  await expect(forecast).toBeVisible()
  const facts = (await forecast.locator('dd').allInnerTexts()).slice(0, 6).join(' ')
  const sentence = await page
    .getByText(/When measured: /)
    .first()
    .innerText()
  return {
    verdict: await page.getByTestId('verdict').innerText(),
    sentence: sentence.slice(0, sentence.indexOf(' over it.')),
    numbers: (facts.match(/[\d,]+(?= km| mi| in 100)/g) ?? []).map((one) => Number(one.replaceAll(',', ''))),
  }
}

test('what is said while a reading is typed is what is said once it is saved, with an odometer value and without', async ({
  page,
}) => {
  await signIn(page)
  for (const [text, heading, spots, km] of [
    ['school pool 9', 'Quay School', ['203.5', '203.4', '203.6'], 60],
    ['island mail 5', 'Island Mail', ['204.0', '203.9', '204.1'], null],
    ['crew bike 3', 'Ostrey Ferry Crew', ['203.8', '203.9'], 150],
    ['night ferry', '', ['204.4', '204.5', '204.4'], null],
  ] as const) {
    const found = (await (await page.request.get(`/api/v1/find?q=${encodeURIComponent(text)}`)).json()) as {
      id: string
      customer: { name: string }
    }[]
    const { id, customer } = found[0]!
    const odometer = km === null ? null : await odometerOn(page, text, km)
    await go(page, '/')
    await putOnStand(page, `${customer.name.toLowerCase()} ${text}`, heading || customer.name)
    await measure(page)
    for (const [i, spot] of spots.entries()) {
      await page.keyboard.press(`Alt+${i + 1}`)
      await page.getByRole('textbox', { name: `Spot ${i + 1}` }).fill(spot)
    }
    if (odometer !== null) await page.getByRole('textbox', { name: 'Odometer' }).fill(odometer)
    await expect(page.getByTestId('live')).toContainText(/Worst (of \d+ spots|spot)/)
    // The forecast comes from beside the main thread.
    await page.waitForTimeout(700)
    const live = await said(page)
    await page.getByRole('button', { name: /^Save reading/ }).click()
    await expect(page.getByText(/^Saved: /)).toBeVisible()
    await expect(page).toHaveURL(/\/\?bike=/)
    await go(page, `/bikes/${id}`)
    await expect(page.getByRole('region', { name: 'Timeline' })).toContainText(spots[0])
    const kept = await said(page)
    expect([kept.verdict, kept.sentence], text).toEqual([live.verdict, live.sentence])
    expect(kept.numbers.length, text).toBeGreaterThan(2)
    expect(kept.numbers).toHaveLength(live.numbers.length)
    for (const [i, one] of kept.numbers.entries()) {
      // Saved a moment later than it was opened: a kilometre, or its rounding.
      expect(Math.abs(one - live.numbers[i]!), `${text}: ${one} and ${live.numbers[i]}`).toBeLessThanOrEqual(
        2 + 0.01 * one,
      )
    }
  }
})
