import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { chmodSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { MailServer } from '../server/src/testing/mailServer.ts'

/** Shops of one's own, served beside the demo shop. */
const served: ChildProcess[] = []
async function begin(port: number): Promise<{ base: string; link: string }> {
  const data = mkdtempSync(join(tmpdir(), 'pelrin-own-'))
  chmodSync(data, 0o755)
  const child = spawn(process.execPath, ['scripts/start.mjs', '--port', String(port), '--data', data, '--no-demo'], {
    cwd: join(import.meta.dirname, '..'),
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  served.push(child)
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  await expect.poll(() => said, { timeout: 110_000 }).toMatch(/welcome#\S+\n/)
  return { base: `http://127.0.0.1:${port}`, link: /http:\S+welcome#\S+/.exec(said)![0] }
}
test.afterAll(async () => {
  for (const child of served) {
    child.kill('SIGINT')
    await new Promise((done) => child.on('exit', done))
  }
})

/** What a person who sees it badly, or not, would stumble over. */
const accessible = async (page: Page): Promise<void> => {
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`)).toEqual([])
}

test('a shop begins, with a colleague, customers from a table and a first reading, by keyboard; and goes over into another', async ({
  browser,
}) => {
  test.setTimeout(240_000)
  const { base, link: first } = await begin(7398)
  const context = await browser.newContext({ baseURL: base, timezoneId: 'America/New_York', locale: 'en-US' })
  const page = await context.newPage()
  const type = (text: string): Promise<void> => page.keyboard.type(text)
  const tab = async (times = 1): Promise<void> => {
    for (let i = 0; i < times; i++) await page.keyboard.press('Tab')
  }

  await page.goto(first)
  await expect(page.getByRole('heading', { name: 'First day' })).toBeVisible()
  await accessible(page)
  await type('Slipway Cycles')
  await expect(page.getByLabel('Short name')).toHaveValue('slipway-cycles')
  // The tablet stands in New York, the workshop does not.
  await page.getByLabel('Time zone').fill('Europe/London')
  await page.getByLabel('Name', { exact: true }).focus()
  await type('Wen Harrow')
  await expect(page.getByLabel('Signs in as')).toHaveValue('wen')
  await tab(3)
  await type('kelp and lanterns')
  await tab()
  await type('4711')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Slipway Cycles is open' })).toBeVisible()
  await accessible(page)

  // By the number of each: what chains are judged by, then who else works here.
  await page.keyboard.press('1')
  await page.getByRole('radio', { name: /^early change/ }).check()
  await page.keyboard.press('Enter')
  await expect(page.getByText('early change', { exact: true })).toBeVisible()
  await page.keyboard.press('4')
  await page.getByRole('button', { name: 'Add somebody' }).click()
  await type('Jory Pell')
  await page.keyboard.press('Enter')
  const link = await page.getByRole('textbox', { name: 'A link for Jory Pell' }).inputValue()
  await accessible(page)
  await page.keyboard.press('Escape')

  const other = await (await browser.newContext({ baseURL: base })).newPage()
  await other.goto(link)
  await expect(other.getByLabel('Password')).toBeFocused()
  await other.keyboard.type('shingle and rope')
  await other.keyboard.press('Tab')
  await other.keyboard.type('2468')
  await other.keyboard.press('Enter')
  await expect(other.getByRole('button', { name: 'At this bench: Jory Pell' })).toBeVisible()

  // Ten customers with a bike each, from a table.
  await page.goto('/house-rules?tab=taking-out')
  const rows = Array.from(
    { length: 10 },
    (_, i) =>
      `Customer ${String.fromCharCode(65 + i)};Bike ${i};${7001 + i};road;derailleur;11;50-34;11-13-15-17-19-21-24-28-32;Tindrel 11`,
  )
  const table = `sep=;\ncustomer;label;tag;kind;drive;speeds;fronts;sprockets;chain\n${rows.join('\n')}\n`
  await page.getByRole('button', { name: /^From CSV: Bikes/ }).click()
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'bikes.csv', mimeType: 'text/csv', buffer: Buffer.from(table) })
  await page.getByRole('dialog').getByRole('button', { name: /10/ }).click()
  await expect
    .poll(async () => ((await (await page.request.get('/api/v1/bikes')).json()) as { total: number }).total)
    .toBe(10)

  // The first reading, from the finder.
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'New bike' })).toBeVisible()
  await type('7001')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: 'Customer A' })).toBeVisible()
  await page.keyboard.press('m')
  await expect(page.getByRole('textbox', { name: /^Spot/ })).toBeFocused()
  await type('204.6')
  for (let i = 0; i < 3; i++) await page.keyboard.press('Enter')
  await expect
    .poll(
      async () =>
        ((await (await page.request.get('/api/v1/find?q=7001')).json()) as { measuredAt: string | null }[])[0]
          ?.measuredAt,
      { timeout: 20_000 },
    )
    .not.toBeNull()
  // By the shop's own clock, wherever the tablet is.
  const here = new Intl.DateTimeFormat('en-GB', {
    timeZone: 'Europe/London',
    hour: '2-digit',
    minute: '2-digit',
  }).format(new Date())
  await expect(page.locator('header')).toContainText(here.slice(0, 3))

  // A password changed ends what one is signed in at elsewhere; a device is signed out from here.
  await other.getByRole('button', { name: 'At this bench: Jory Pell' }).click()
  await other.getByRole('menuitem', { name: 'My password and PIN' }).click()
  await other.keyboard.type('shingle and rope')
  await other.keyboard.press('Tab')
  await other.keyboard.type('bollard and buoy')
  await other.keyboard.press('Enter')
  await expect(other.getByText('Changed. Everything else you were signed in at is signed out.')).toBeVisible()
  await page.goto('/house-rules?tab=devices')
  await page.getByRole('button', { name: /^Sign out from here/ }).click()
  await page.getByRole('button', { name: 'Sign out from here', exact: true }).last().click()
  await expect(page.getByRole('button', { name: /^Sign out from here/ })).toHaveCount(0)
  // Whoever was at it signs in over what they were at, and goes on.
  await other.keyboard.press('Shift+Digit2')
  const again = other.getByRole('dialog', { name: 'Sign in to go on' })
  await expect(again).toBeVisible()
  await accessible(other)
  await again.getByLabel('Name').fill('jory')
  await again.getByLabel('Password').fill('bollard and buoy')
  await other.keyboard.press('Enter')
  await expect(again).toHaveCount(0)
  await expect(other.getByText('Customer A').first()).toBeVisible()
  await other.context().close()

  for (const tabName of ['people', 'shop', 'audit']) {
    await page.goto(`/house-rules?tab=${tabName}`)
    await expect(page.getByRole('tab', { selected: true })).toBeVisible()
    await accessible(page)
  }
  const found = (await (await page.request.get('/api/v1/customers?q=Customer%20B')).json()) as { id: string }[]
  await page.goto(`/customers/${found[0]!.id}`)
  await expect(page.getByRole('heading', { level: 1, name: 'Customer B' })).toBeVisible()
  await accessible(page)

  // A reminder goes out by the shop's own mail server, with the sheet of the bike, and is stopped by its link.
  await page.keyboard.press('e')
  await page.getByLabel('E-mail').fill('b@quay.test')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'b@quay.test' })).toBeVisible()
  const post = new MailServer()
  const mailPort = await post.listen()
  await page.goto('/house-rules?tab=mail')
  await page.getByLabel('Mail server (SMTP)').fill('127.0.0.1')
  await page.getByLabel('Port').fill(String(mailPort))
  await page.getByRole('combobox', { name: 'Encryption' }).click()
  await page.getByRole('option', { name: 'none' }).click()
  await page.getByLabel('Sender’s address').fill('shop@slipway.test')
  await page.getByRole('button', { name: 'Save' }).click()
  await page.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(page.getByText('The mail server took it.')).toBeVisible()
  await accessible(page)
  const rules = (await (await page.request.get('/api/v1/house-rules')).json()) as {
    assumptions: { version: number; overrides: object }
  }
  // By day and by night: this is about sending, not about the clock.
  const loud = { ...rules.assumptions.overrides, 'diary.quietFrom': 0, 'diary.quietUntil': 0 }
  const changed = await page.request.post('/api/v1/house-rules/changes', {
    headers: { 'Idempotency-Key': randomUUID() },
    data: {
      id: randomUUID(),
      change: { kind: 'assumptions', fromVersion: rules.assumptions.version, overrides: loud },
      reason: 'a test by night',
    },
  })
  expect(changed.ok()).toBe(true)
  await page.goto('/diary')
  await expect(page.getByText('Customer B').first()).toBeVisible()
  await page.keyboard.press('r')
  await expect(page.getByText('e-mail to b@quay.test')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect.poll(() => post.taken.length, { timeout: 30_000 }).toBe(2)
  const reminder = post.taken[1]!
  expect(reminder.attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf'])
  const stop = /http:\/\/127\.0\.0\.1:7398\/stop\/\S+/.exec(reminder.text!)![0]
  const reader = await (await browser.newContext()).newPage()
  await reader.goto(stop)
  await reader.getByRole('button', { name: 'Write to me no more' }).click()
  await expect(reader.getByText('Slipway Cycles writes to you no more.')).toBeVisible()
  await reader.context().close()
  await page.goto(`/customers/${found[0]!.id}`)
  await expect(page.getByText('no messages')).toBeVisible()
  await post.close()
  await context.close()
})

test('the demo shop’s archive takes the place of what a new shop was born with, settings and all', async ({
  browser,
  page: demo,
}) => {
  test.setTimeout(240_000)
  await demo.goto('/')
  await demo.request.post('/api/v1/session', { data: { shop: 'saltmarsh', name: 'tove', password: 'causeway-1' } })
  const archive = await (await demo.request.get('/api/v1/archive.jsonl')).body()
  const { base, link } = await begin(7393)
  const context = await browser.newContext({ baseURL: base, timezoneId: 'Europe/London', locale: 'en-GB' })
  const page = await context.newPage()
  await page.goto(link)
  await page.getByLabel('Name of the workshop').fill('Slipway Cycles')
  await page.getByLabel('Name', { exact: true }).fill('Wen Harrow')
  await page.getByLabel('Password').fill('kelp and lanterns')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Slipway Cycles is open' })).toBeVisible()
  await page.keyboard.press('6')
  await page
    .getByLabel('Take an archive in')
    .setInputFiles({ name: 'shop.jsonl', mimeType: 'application/jsonl', buffer: archive })
  await expect(page.getByText(/takes the place of its house rules/)).toBeVisible({ timeout: 60_000 })
  await expect(page.getByRole('checkbox', { name: 'Take this over' })).toBeChecked()
  await page.getByRole('button', { name: /^Add \d+ rows/ }).click()
  await expect(page.getByText(/rows were added/)).toBeVisible({ timeout: 90_000 })
  // It is that shop now, to whoever looks and row by row.
  await expect(page.locator('header')).toContainText('Saltmarsh Row Cycles')
  const rowsOf = (text: string, table: string): string[] =>
    text.split('\n').filter((line) => line.startsWith(`{"table":"${table}"`))
  const [there, here] = [archive.toString(), await (await page.request.get('/api/v1/archive.jsonl')).text()]
  for (const table of ['bikes', 'customers', 'readings', 'spots', 'rides', 'care_events', 'house_rules', 'visits'])
    expect(rowsOf(here, table), table).toEqual(rowsOf(there, table))
  expect(rowsOf(there, 'bikes').length).toBeGreaterThanOrEqual(119)
  await page.goto('/house-rules?tab=people')
  await expect(page.getByRole('button', { name: 'Invite again: Tove Sandell' })).toBeVisible()
  await context.close()
})
