import { writeFile } from 'node:fs/promises'
import { chromium, expect, type Locator } from '@playwright/test'
import { expectAccessible, go, signIn, test } from './bench.ts'

/** A film of something on the screen, as a camera that looks at it takes it: 640 × 480, grey, still. */
async function filmOf(what: Locator): Promise<Buffer> {
  const picture = (await what.screenshot()).toString('base64')
  const light = await what.page().evaluate(async (data) => {
    const image = new Image()
    image.src = `data:image/png;base64,${data}`
    await image.decode()
    const pencil = new OffscreenCanvas(640, 480).getContext('2d')!
    pencil.fillStyle = '#b9a58a'
    pencil.fillRect(0, 0, 640, 480)
    pencil.translate(320, 240)
    pencil.rotate(0.2)
    pencil.drawImage(image, -150, -150, 300, 300)
    const { data: pixels } = pencil.getImageData(0, 0, 640, 480)
    return Array.from({ length: 640 * 480 }, (_, i) => pixels[4 * i]!)
  }, picture)
  const frame = [Buffer.from('FRAME\n'), Buffer.from(light), Buffer.alloc((640 * 480) / 2, 128)]
  return Buffer.concat([Buffer.from('YUV4MPEG2 W640 H480 F10:1 Ip A1:1 C420jpeg\n'), ...frame, ...frame])
}

test('bike tags are printed from the rack, and a scanner that types opens the bike from anywhere', async ({
  page,
  baseURL,
}, info) => {
  await signIn(page)
  await page.keyboard.press('Shift+Digit2')
  const film = info.outputPath('tag.y4m')
  await test.step('the sheet holds what the rack shows', async () => {
    await go(page, '/tags?q=island%20mail')
    const tags = page.getByRole('list', { name: 'Bike tags' }).getByRole('listitem')
    await expect(tags.first()).toContainText('Island Mail')
    expect(await tags.count()).toBeGreaterThan(5)
    await expect(tags.first().locator('svg')).toBeVisible()
    await expectAccessible(page)
    await writeFile(film, await filmOf(tags.first().locator('svg')))
  })
  await test.step('without a camera it is said how else; Escape closes it', async () => {
    await page.keyboard.press('Alt+t')
    await expect(page.getByRole('alert')).toContainText('This device has no camera. Type the tag’s number')
    await page.keyboard.press('Escape')
    await expect(page.getByRole('dialog')).toBeHidden()
  })
  await test.step('the printed tag, held before a tablet’s camera, opens its bike', async () => {
    const { launchOptions } = info.project.use
    const tablet = await chromium.launch({
      ...launchOptions,
      args: [
        ...(launchOptions?.args ?? []),
        ...['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'],
        `--use-file-for-fake-video-capture=${film}`,
      ],
    })
    const held = await (await tablet.newContext({ baseURL: baseURL! })).newPage()
    await signIn(held)
    await held.getByRole('button', { name: 'Scan a tag' }).click()
    await expect(held).toHaveURL(/\?bike=/)
    await expect(held.getByRole('dialog')).toBeHidden()
    await expect(held.getByRole('heading', { level: 1, name: 'Island Mail' })).toBeVisible()
    await tablet.close()
  })
  await test.step('a code scanned into Pelrin finds its bike, as if its number had been typed', async () => {
    await go(page, '/diary')
    await expect(page.getByRole('heading', { name: 'Diary' })).toBeVisible()
    await page.keyboard.type(`${baseURL}/t/0400`, { delay: 8 })
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { level: 1, name: 'Ivo Marsh' })).toBeVisible()
  })
  await test.step('a camera follows it; a tag nobody has says so', async () => {
    await page.goto('/t/0400')
    await expect(page.getByRole('heading', { level: 1, name: 'Ivo Marsh' })).toBeVisible()
    await go(page, '/t/9999')
    await expect(page.getByRole('heading', { name: 'No bike here has the tag 9999.' })).toBeVisible()
  })
})

test('the owner makes a backup and sees that it is good', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('Shift+Minus')
  await page.getByRole('tab', { name: 'Backups' }).click()
  await page.getByRole('button', { name: 'Back up now' }).press('Enter')
  await expect(page.getByText(/^The last good backup is /)).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('list', { name: 'Backups' }).getByRole('listitem').first()).toContainText('.dump')
  await expectAccessible(page)
})

test('tables are taken out by the owner as files', async ({ page }) => {
  await signIn(page)
  await go(page, '/house-rules')
  await page.getByRole('tab', { name: 'In and out' }).click()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As CSV: Bikes, with drive, chain, verdict and what is due' }).press('Enter'),
  ])
  expect(download.suggestedFilename()).toBe('bikes.csv')
  await expectAccessible(page)
  await test.step('and come in again: looked at row by row, what is wrong at its cell, what is new taken', async () => {
    await page.getByRole('button', { name: /^From CSV: Customers/ }).press('Enter')
    const dialog = page.getByRole('dialog')
    const csv = 'name,phone,good_weekday,colour\nMerrin Hale,0555 0301,5,red\nTamsin Lode,0555 0302,9,blue\n'
    await dialog
      .locator('input[type=file]')
      .setInputFiles({ name: 'customers.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
    await expect(dialog.getByText('Not read: colour.')).toBeVisible()
    await expect(dialog.getByText(/good_weekday “9”: This is not a number, or it is out of range/)).toBeVisible()
    await expectAccessible(page)
    await dialog.getByRole('button', { name: 'Take 1 row' }).press('Enter')
    await expect(page.getByText('1 added, 1 left out.')).toBeVisible()
    await expect(dialog).toBeHidden()
  })
  await test.step('and as one archive, which says that all of it is here already when it is taken in', async () => {
    const [archive] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'As one archive' }).press('Enter'),
    ])
    expect(archive.suggestedFilename()).toBe('saltmarsh.jsonl')
    await page.locator('input[type=file]').setInputFiles(await archive.path())
    await expect(page.getByText(/Everything in it is here already\.|rows? to add/)).toBeVisible({ timeout: 60_000 })
    await page.locator('input[type=file]').setInputFiles({
      name: 'half.jsonl',
      mimeType: 'application/jsonl',
      buffer: Buffer.from('{"pelrin":"archive","version":1}\n'),
    })
    await expect(page.getByText(/ends at line 1 without its foot/)).toBeVisible()
  })
})
