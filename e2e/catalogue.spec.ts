import { expect } from '@playwright/test'
import { endWord, go, signIn, test } from './bench.ts'

test('a part is added by keyboard, slips named at their fields, and its stock is counted, used and received', async ({
  page,
}) => {
  await signIn(page)
  await go(page, '/catalogue')
  await expect(page.getByRole('heading', { level: 1, name: 'Catalogue and stock' })).toBeVisible()
  await page.keyboard.press('n')
  const dialog = page.getByRole('dialog', { name: 'A new part' })
  await dialog.getByLabel('Maker', { exact: true }).fill('Mabry')
  await dialog.getByLabel('Name', { exact: true }).fill('Harbour wall 11')
  await dialog.getByLabel('Price').fill('dear')
  await dialog.getByLabel('In stock').fill('-1')
  await page.keyboard.press('Enter')
  await expect(dialog.getByText('This is not a number, or it is out of range.')).toBeVisible()
  await dialog.getByLabel('Price').fill('24,50')
  await page.keyboard.press('Enter')
  await expect(dialog.getByText(/Say for how many speeds/)).toBeVisible()
  await expect(dialog.getByText('There cannot be fewer than none.')).toBeVisible()
  await expect(dialog.getByLabel('Name', { exact: true })).toHaveValue('Harbour wall 11')
  await dialog.getByLabel('Speeds').fill('11')
  await dialog.getByLabel('In stock').fill('2')
  await page.keyboard.press('Enter')
  await expect(dialog).toBeHidden()
  await expect(page.getByRole('heading', { level: 2, name: 'Mabry Harbour wall 11' })).toBeVisible()

  const moved = page.getByRole('region', { name: 'What came and went' })
  await expect(moved).toContainText('+2')
  await endWord(page)
  await page.keyboard.press('u')
  await page.getByLabel('How many were used?').fill('3')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Only 2 are here/)).toBeVisible()
  await page.getByLabel('How many were used?').fill('1')
  await page.keyboard.press('Enter')
  await expect(moved).toContainText('−1')
  await endWord(page)
  await page.keyboard.press('i')
  await page.getByLabel('How many came?').fill('5')
  await page.keyboard.press('Enter')
  await expect(moved).toContainText('+5')
})

test('a table of parts is looked at row by row, and the chosen rows are taken', async ({ page }) => {
  await signIn(page)
  await go(page, '/catalogue')
  await page.getByRole('button', { name: 'Table in' }).click()
  const dialog = page.getByRole('dialog', { name: 'A table of parts' })
  const rows = [
    'kind;brand;model;speeds;rrp;qty;inBox;joints',
    'chain;Mabry;Jetty 10;10;"19,50";2;116;link',
    'chain;Mabry;Jetty 9;9;"17,50";1;116;link',
    'chain;Mabry;Jetty 8;8;cheap;1;115;link',
  ]
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'parts.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\r\n')) })
  await expect(dialog.getByText('2 new parts')).toBeVisible()
  await expect(dialog.getByText('1 cannot be taken')).toBeVisible()
  await expect(dialog.getByText(/Price “cheap”/)).toBeVisible()
  await dialog.getByLabel('take row 2').uncheck()
  await dialog.getByRole('button', { name: 'Take 1 row' }).click()
  await expect(dialog).toBeHidden()
  await page.getByLabel('Maker, name').fill('mabry jetty')
  const list = page.getByRole('listbox', { name: 'Catalogue and stock' })
  await expect(list.getByRole('option')).toHaveCount(1)
  await expect(list.getByRole('option')).toContainText('Mabry Jetty 10')
})

test('what somebody else changed meanwhile is shown beside, and nothing typed is lost', async ({ page }) => {
  await signIn(page)
  await go(page, '/catalogue?q=mabry%20nine&kind=chain')
  await expect(page.getByRole('heading', { level: 2, name: 'Mabry Nine', exact: true })).toBeVisible()
  await page.getByLabel('Price').fill('18.80')
  const { parts } = (await (await page.request.get('/api/v1/catalogue?q=mabry%20nine&kind=chain')).json()) as {
    parts: { id: string }[]
  }
  const id = parts[0]?.id ?? ''
  const item = (await (await page.request.get(`/api/v1/catalogue/${id}`)).json()) as {
    version: number
    cells: Record<string, string>
  }
  const elsewhere = await page.request.patch(`/api/v1/catalogue/${id}`, {
    headers: { 'if-match': `"${item.version}"` },
    data: { cells: { ...item.cells, price: '17.10', reorderPoint: '3' } },
  })
  expect(elsewhere.ok()).toBe(true)
  await page.getByRole('button', { name: 'Keep changes' }).click()
  await expect(page.getByText(/Somebody changed this meanwhile/)).toBeVisible()
  await expect(page.getByText('now: 17.10')).toBeVisible()
  await expect(page.getByLabel('Price')).toHaveValue('18.80')
  await page.getByRole('button', { name: 'Keep changes' }).click()
  await expect(page.getByText(/Somebody changed this meanwhile/)).toBeHidden()
  await expect(page.getByLabel('Order at')).toHaveValue('3')
  await expect(page.getByLabel('Price')).toHaveValue('18.80')
})
