import { mkdtempSync, chmodSync, mkdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { spawn } from 'node:child_process'
import { chromium, type Page } from '@playwright/test'
import { say } from './plain.ts'

/** `npm run screenshots`: one picture of each main view, from a freshly loaded demo shop. */
const root = join(import.meta.dirname, '..')
const folder = join(root, 'docs/screenshots')
const PORT = 7397
/** A folder the database's account may enter. */
function scratch(): string {
  const made = mkdtempSync(join(tmpdir(), 'pelrin-shots-'))
  chmodSync(made, 0o755)
  return made
}
const [data, own] = [scratch(), scratch()]
mkdirSync(folder, { recursive: true })

/** A Pelrin on a folder of its own, and what it says as it begins. */
function serve(from: string, more: readonly string[] = []) {
  const child = spawn(process.execPath, ['scripts/start.mjs', '--port', String(PORT), '--data', from, ...more], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  let all = ''
  const said = (what: RegExp): Promise<string> =>
    new Promise((done, reject) => {
      child.stdout.on('data', (chunk: Buffer) => {
        all += chunk.toString()
        const found = what.exec(all)
        if (found) done(found[0])
      })
      child.on('exit', () => reject(new Error('the server did not start')))
    })
  return { child, said }
}

const { child: server, said } = serve(data)
await said(/Pelrin is at/)

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
})
const page = await browser.newPage({
  viewport: { width: 1280, height: 800 },
  locale: 'en-GB',
  timezoneId: 'Europe/London',
  baseURL: `http://127.0.0.1:${PORT}`,
})

async function shoot(name: string): Promise<void> {
  await page.waitForTimeout(700)
  await page.screenshot({ path: join(folder, `${name}.png`) })
  say(`docs/screenshots/${name}.png`)
}

/** A ride of so many km within an hour, some days ago, as a device writes it. */
function rideFile(daysAgo: number, km: number): string {
  const start = Math.floor(Date.now() / 86_400_000) * 86_400_000 - daysAgo * 86_400_000 + 9 * 3_600_000
  const points = Array.from(
    { length: 121 },
    (_, i) =>
      `<trkpt lat="${50 + (km / 111.195) * (i / 120)}" lon="-4"><time>${new Date(start + i * 30_000).toISOString()}</time></trkpt>`,
  )
  return `<gpx version="1.1"><trk><trkseg>${points.join('')}</trkseg></trk></gpx>`
}

async function find(on: Page, text: string, label: string): Promise<void> {
  await on.keyboard.type(text, { delay: 50 })
  await on.keyboard.press('Enter')
  await on.getByText(new RegExp(`^${label}, .*on the stand since`)).waitFor()
}

await page.goto('/')
await page.getByLabel('Name').waitFor()
await page.getByLabel('Name').fill('tove')
await page.getByLabel('Password').fill('causeway-1')
await page.keyboard.press('Enter')
await page.getByRole('heading', { name: /^In today/ }).waitFor()
await find(page, 'ivo marsh', 'Causeway')
await shoot('stand')
await find(page, 'nell winter', 'Winter bike')
await page.waitForTimeout(700)
await page.keyboard.press('p')
await page.getByRole('listbox', { name: 'Chains' }).waitFor()
// A mend with two links gone: what the rider is told.
for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowLeft')
await page.getByText(/Keep off/).waitFor()
await shoot('parts')
await page.goto('/')
await page.getByRole('heading', { name: /^In today/ }).waitFor()
await find(page, 'ivo marsh', 'Causeway')
await page.waitForTimeout(700)
await page.keyboard.press('j')
await page.getByRole('button', { name: /^Begin/ }).waitFor()
await page.keyboard.press('Enter')
await page.getByText(/^Step 1 of/).waitFor()
for (let i = 0; i < 20; i++) {
  await page.keyboard.press('Space')
  await page.waitForTimeout(120)
}
await shoot('job')
await page.goto('/catalogue?q=plain&kind=chain')
await page.getByRole('region', { name: 'What came and went' }).waitFor()
await page.getByLabel('Maker, name').fill('')
await shoot('catalogue')
await page.goto('/')
await page.getByRole('heading', { name: /^In today/ }).waitFor()
await find(page, 'sand racer', 'Sand racer')
await page.keyboard.press('m')
await page.getByRole('textbox', { name: 'Spot 1' }).waitFor()
await page.keyboard.type('306.0', { delay: 30 })
await page.keyboard.press('Enter')
await page.keyboard.type('12in +3/64', { delay: 30 })
await page.keyboard.press('Enter')
await page.keyboard.type('306.1', { delay: 30 })
await shoot('measure')
for (const place of [1, 2, 3]) {
  await page.keyboard.press(`Alt+${place}`)
  await page.getByRole('textbox', { name: `Spot ${place}` }).fill('')
}
await page.keyboard.press('Escape')
await page.goto('/')
await find(page, 'sand racer', 'Sand racer')
await page.waitForTimeout(700)
await page.keyboard.press('b')
await page.getByRole('region', { name: 'Timeline' }).waitFor()
await page.waitForTimeout(1500)
await shoot('bike')
await page.keyboard.press('k')
await page.getByRole('heading', { level: 1, name: 'Distance and rides' }).waitFor()
await page.locator('input[type=file]').setInputFiles([
  { name: 'quay-and-back.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(rideFile(3, 17)) },
  { name: 'sands.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(rideFile(2, 24)) },
  { name: 'half-a-ride.gpx', mimeType: 'application/gpx+xml', buffer: Buffer.from(rideFile(1, 9).slice(0, 600)) },
])
await page.getByRole('button', { name: /^Write \d/ }).waitFor()
await shoot('distance')
await page.getByRole('button', { name: 'Stop' }).click()
/** The address of a bike, by what finds it. */
async function bikeAddress(text: string): Promise<string> {
  const found = (await (await page.request.get(`/api/v1/find?q=${encodeURIComponent(text)}`)).json()) as {
    id: string
  }[]
  return `/bikes/${found[0]?.id ?? ''}`
}
await page.goto(`${await bikeAddress('courier')}/care`)
await page.getByRole('heading', { name: 'It was treated just now' }).waitFor()
await shoot('care')
await page.goto('/pot')
await page.getByRole('button', { name: 'Switch on' }).click()
await page.getByText('ready to dip').waitFor()
await page.getByRole('img', { name: /Each chain’s way/ }).waitFor()
await page.keyboard.press('Enter')
await page.getByText(/^Done: Into /).waitFor()
await page.waitForTimeout(6_000)
await shoot('pot')
await page.goto('/diary')
await page.getByRole('heading', { name: /^Due, not booked/ }).waitFor()
await shoot('diary')
await page.goto(`${await bikeAddress('courier')}/chains`)
await page.getByRole('list', { name: 'Chains of this bike' }).waitFor()
await shoot('chains')
await page.setViewportSize({ width: 1280, height: 1720 })
await page.goto(`${await bikeAddress('bram fenn')}/sheets/customer`)
await page.getByRole('article').waitFor()
await shoot('sheet')
await page.setViewportSize({ width: 1280, height: 800 })
await page.goto('/insight')
await page.getByRole('button', { name: 'Learn from the shop’s chains' }).click({ timeout: 60_000 })
await page.getByText(/^Version 1, /).waitFor({ timeout: 90_000 })
await page.getByText(/^Last run/).waitFor({ timeout: 120_000 })
await shoot('insight')
await page.goto('/gauges')
await page.getByRole('button', { name: /red handle/ }).click()
await page.getByRole('heading', { level: 2, name: /red handle/ }).waitFor()
await shoot('gauges')
await page.goto('/house-rules')
await page.getByLabel('Derailleur, up to 10, Change at').fill('0.6')
await page.getByText(/^Judges/).waitFor()
await shoot('house-rules')
await page.goto('/house-rules?tab=people')
await page.getByRole('list', { name: 'People' }).waitFor()
await shoot('people')
const customers = (await (await page.request.get('/api/v1/customers?q=bram')).json()) as { id: string }[]
await page.goto(`/customers/${customers[0]?.id ?? ''}`)
await page.getByRole('heading', { name: 'Bikes' }).waitFor()
await shoot('customer')
await page.goto('/rack')
await page.getByRole('table').waitFor()
await shoot('rack')

server.kill('SIGTERM')
await new Promise((done) => server.on('exit', done))

// What an empty machine begins with.
const begun = serve(own, ['--no-demo'])
const link = await begun.said(/http:\S+welcome#\S+\n/)
await page.context().clearCookies()
await page.goto(link.trim())
await page.getByLabel('Name of the workshop').fill('Slipway Cycles')
await page.getByLabel('Name', { exact: true }).fill('Wen Harrow')
await page.getByLabel('Signs in as').waitFor()
await shoot('first-day')
begun.child.kill('SIGTERM')
await new Promise((done) => begun.child.on('exit', done))

await browser.close()
for (const one of [data, own]) rmSync(one, { recursive: true, force: true })
