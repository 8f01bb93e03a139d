import { expect } from '@playwright/test'
import { expectAccessible, signIn, test } from './bench.ts'

test('a visit is booked from the diary by keyboard, moved in its time, called off; a day is closed; a calendar reads along', async ({
  page,
  request,
}) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit8')
  const due = page.getByRole('heading', { name: /^Due, not booked: / })
  await expect(due).toBeVisible()
  const count = async (): Promise<number> => Number(/\d+$/.exec((await due.textContent()) ?? '')?.[0])
  const before = await count()
  let name = ''
  const days = page.getByRole('listbox', { name: /How full each day is/ })
  await test.step('arrows choose a visit and a day, B books it there', async () => {
    await expectAccessible(page)
    await page.keyboard.press('ArrowDown')
    const chosen = page.getByRole('listitem').and(page.locator('[aria-current="true"]'))
    name = (await chosen.locator('span span').nth(2).textContent()) ?? ''
    for (let i = 0; i < 8; i++) await page.keyboard.press('ArrowRight')
    while (((await days.getByRole('option', { selected: true }).getAttribute('aria-label')) ?? '').includes('closed'))
      await page.keyboard.press('ArrowRight')
    await page.keyboard.press('b')
    await expect(page.getByText(/^Booked for /)).toBeVisible()
    await expect.poll(count).toBe(before - 1)
    await expect(page.getByRole('list', { name: /booked$/ })).toContainText(name)
  })
  await test.step('a time is promised by typing it; one that is none is shown as such and kept', async () => {
    const time = page
      .getByRole('list', { name: /booked$/ })
      .getByLabel('Ready by')
      .first()
    await time.fill('26:00')
    await expect(time).toHaveAttribute('aria-invalid', 'true')
    await time.fill('1530')
    await time.press('Enter')
    await expect(
      page
        .getByRole('list', { name: /booked$/ })
        .getByLabel('Ready by')
        .first(),
    ).toHaveValue('15:30')
  })
  await test.step('a calendar program reads it by an address that is told once', async () => {
    await page.keyboard.press('c')
    await page.getByLabel('Who it is for').fill('front desk')
    await page.keyboard.press('Enter')
    const address = await page.getByRole('textbox', { name: 'Calendar address' }).inputValue()
    const file = await (await request.get(address)).text()
    expect(file).toContain('BEGIN:VCALENDAR')
    expect(file.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThan(6)
    await page.getByRole('button', { name: 'Revoke' }).press('Enter')
    await expect(page.getByText('front desk, made')).toBeHidden()
    expect((await request.get(address)).status()).toBe(404)
    await page.keyboard.press('Escape')
  })
  await test.step('it is called off, and due again', async () => {
    await page
      .getByRole('button', { name: `Call off: ${name}` })
      .first()
      .press('Enter')
    await expect.poll(count).toBe(before)
  })
  await test.step('a day is closed and opened after all', async () => {
    await page.getByRole('button', { name: 'Close this day' }).press('Enter')
    await page.getByLabel('Why it is closed').fill('spring tide')
    await page.keyboard.press('Enter')
    await expect(page.getByText('closed: spring tide')).toBeVisible()
    await page.getByRole('button', { name: 'Open after all' }).press('Enter')
    await expect(page.getByText('closed: spring tide')).toBeHidden()
  })
})
