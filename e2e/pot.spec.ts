import { expect } from '@playwright/test'
import { endWord, expectAccessible, putOnStand, signIn, test } from './bench.ts'

test('a session at the wax pot is planned, pinned, gone through by keyboard, and stands in each chain’s care', async ({
  page,
}) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit7')
  const next = page.getByRole('list', { name: 'Next' }).getByRole('listitem')
  const timeline = page.getByRole('img', { name: /Each chain’s way/ })
  await test.step('the pot is switched on, and only what its thermometer says counts', async () => {
    await page.getByRole('button', { name: 'Switch on' }).press('Enter')
    await expect(page.getByText('ready to dip')).toBeVisible()
    await expect(timeline).toBeVisible()
    await expectAccessible(page)
  })
  await test.step('a chain of a bike is added by G from its Care, once', async () => {
    await page.keyboard.press('Shift+Digit1')
    await putOnStand(page, 'kerra keel race', 'Kerra Keel')
    await endWord(page)
    await page.keyboard.press('t')
    await expect(page.getByRole('button', { name: /Let it wait for the pot/ })).toBeVisible()
    await endWord(page)
    await page.keyboard.press('g')
    await expect(page.getByText('It waits for the pot.')).toBeVisible()
    await page.keyboard.press('Shift+Digit7')
    await expect(timeline.getByText('Kerra Keel')).toBeVisible()
  })
  await test.step('a time that is none is told at its field; a promise that cannot be kept is said', async () => {
    await timeline.getByText('Kerra Keel').click()
    const wanted = page.getByLabel('Wanted by')
    await wanted.fill('25:10')
    await expect(page.getByText('Type a time such as 14:30.')).toBeVisible()
    await wanted.fill('00:01')
    await wanted.press('Enter')
    await expect(page.getByText(/promises? cannot be kept: .*Kerra Keel/)).toBeVisible()
  })
  await test.step('the arrow pins it, P lets go, X takes it out', async () => {
    await page.getByRole('heading', { name: 'Wax pot' }).click()
    await page.keyboard.press('ArrowRight')
    await expect(page.getByText(/^Pinned: in at /)).toBeVisible()
    await page.keyboard.press('p')
    await expect(page.getByText(/^Pinned: in at /)).toBeHidden()
    await page.keyboard.press('x')
    await expect(timeline.getByText('Kerra Keel')).toBeHidden()
  })
  await test.step('Enter does what is next, over a reload', async () => {
    const first = (await next.first().textContent()) ?? ''
    expect(first).toMatch(/Into (Copper|the stripping bath)/)
    await page.keyboard.press('Enter')
    await expect(page.getByText(/^Done: Into /)).toBeVisible()
    await page.reload()
    await expect(next.first()).not.toHaveText(first)
    await expect(page.getByText(/^in the wax|^in the bath/).first()).toBeVisible()
  })
  await test.step('what is in the wax is drawn, hung, flexed and done, however late an older answer comes', async () => {
    await page.route('**/api/v1/pot', async (route) => {
      const response = await route.fetch()
      await new Promise((resolve) => setTimeout(resolve, 1_500))
      await route.fulfill({ response })
    })
    const done = page.getByText(/done today/)
    const action = page.getByRole('button', { name: /^Done: / }).first()
    for (let i = 0; i < 20 && !(await done.isVisible()); i++) {
      await expect(action).toBeEnabled()
      // What was in the bath is not dry by the clock; blown dry, it is said to be.
      const blown = page.getByRole('button', { name: 'It is dry' }).first()
      if (await blown.isVisible()) {
        await blown.press('Enter')
        await expect(blown).toBeHidden()
      }
      const written = page.waitForResponse('**/pot/moves')
      await action.press('Enter')
      // None is refused: what is shown as next is as it stands, whatever was asked for before.
      expect((await written).status()).toBe(200)
    }
    await expect(done).toBeVisible()
    await page.unrouteAll({ behavior: 'ignoreErrors' })
  })
})
