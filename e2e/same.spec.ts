import { expect } from '@playwright/test'
import { go, odometerOn, signIn, test } from './bench.ts'

const DAY = 86_400_000

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

/** Bikes whose forecast is shown and that nobody measured lately, whatever else was tested in this shop before. */
async function quietBikes(page: Parameters<typeof signIn>[0]): Promise<{ id: string; tag: string; median: number }[]> {
  const { bikes } = (await (await page.request.get('/api/v1/bikes?limit=200')).json()) as {
    bikes: {
      id: string
      tag: string
      median: number | null
      measuredAt: string | null
      overOn: string | null
      chainKm: number | null
      probabilityOver: number | null
    }[]
  }
  return bikes
    .flatMap(({ id, tag, median, measuredAt, overOn, chainKm, probabilityOver }) =>
      median !== null &&
      chainKm !== null &&
      overOn !== null &&
      measuredAt !== null &&
      Date.parse(measuredAt) < Date.now() - 20 * DAY &&
      (probabilityOver ?? 1) < 0.3
        ? [{ id, tag, median }]
        : [],
    )
    .sort((a, b) => a.tag.localeCompare(b.tag))
}

test('what is said while a reading is typed is what is said once it is saved, with an odometer value and without', async ({
  page,
}) => {
  await signIn(page)
  const bikes = (await quietBikes(page)).slice(0, 4)
  expect(bikes).toHaveLength(4)
  for (const [i, { id, tag, median }] of bikes.entries()) {
    // As it was, by a rule on sixteen pitches, one place a little more.
    const spots = [0.1, 0, 0.2].map((more) => (203.2 * (1 + median / 100) + more).toFixed(1))
    const odometer = i % 2 === 0 ? await odometerOn(page, tag, [60, 0, 150][i]!) : null
    await go(page, `/bikes/${id}/measure`)
    await expect(page.getByRole('button', { name: /^Save reading/ })).toBeVisible()
    for (const [at, spot] of spots.entries()) {
      await page.keyboard.press(`Alt+${at + 1}`)
      await page.getByRole('textbox', { name: `Spot ${at + 1}` }).fill(spot)
    }
    if (odometer !== null) await page.getByRole('textbox', { name: 'Odometer' }).fill(odometer)
    await expect(page.getByTestId('live')).toContainText(/Worst (of \d+ spots|spot)/)
    // The forecast comes from beside the main thread.
    await page.waitForTimeout(700)
    const live = await said(page)
    await page.getByRole('button', { name: /^Save reading/ }).click()
    await expect(page.getByText(/^Saved: /)).toBeVisible()
    await expect(page).not.toHaveURL(/measure/)
    await go(page, `/bikes/${id}`)
    await expect(page.getByRole('region', { name: 'Timeline' })).toContainText(spots[2]!)
    const kept = await said(page)
    expect([kept.verdict, kept.sentence], tag).toEqual([live.verdict, live.sentence])
    expect(kept.numbers.length, tag).toBeGreaterThan(2)
    expect(kept.numbers, tag).toHaveLength(live.numbers.length)
    for (const [at, one] of kept.numbers.entries()) {
      // Saved a moment later than it was opened: a kilometre, or its rounding.
      expect(Math.abs(one - live.numbers[at]!), `${tag}: ${one} and ${live.numbers[at]}`).toBeLessThanOrEqual(
        2 + 0.01 * one,
      )
    }
  }
})
