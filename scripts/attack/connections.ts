import { request } from 'node:http'
import { setTimeout as sleep } from 'node:timers/promises'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import type { Device } from '../../server/src/testing/device.ts'
import { readingOf } from '../../server/src/testing/reading.ts'
import type { Found } from './found.ts'
import type { Target } from './target.ts'

/** Begins something and is gone after a while. */
function broken(target: Target, device: Device, n: number): Promise<void> {
  const upload = n % 3 !== 0
  const paths = ['/archive.jsonl', '/archive', '/import/customers/preview', '/export/rides.csv', '/catalogue/preview']
  const path = upload ? paths[1 + (n % 2) * 3]! : paths[(n % 2) * 3]!
  return new Promise((done) => {
    const asked = request(`${target.base}/api/v1${path}`, {
      method: upload ? 'POST' : 'GET',
      headers: {
        cookie: device.cookie,
        ...(upload ? { 'content-length': '90000000', 'content-type': 'multipart/form-data; boundary=x' } : {}),
      },
    })
    // Whoever reads nothing of an answer holds it up.
    asked.on('response', (response) => response.pause())
    asked.on('error', () => undefined)
    asked.on('close', () => done())
    if (upload) asked.write('--x\r\ncontent-disposition: form-data; name="files"; filename="a"\r\n\r\nbegun')
    else asked.end()
    setTimeout(() => asked.destroy(), 10 + ((n * 37) % 400))
  })
}

/** Connections that break, while somebody else works on: whose answers have to go on coming. */
export async function brokenConnections(target: Target, cuts: number): Promise<Found> {
  const [rude, polite] = [await target.signIn('owner'), await target.signIn('mechanic')]
  const faults: string[] = []
  const over = new AbortController()
  let slowest = 0
  const working = (async () => {
    while (!over.signal.aborted) {
      const started = Date.now()
      const { status } = await polite.ask(endpoints.lineUp)
      slowest = Math.max(slowest, Date.now() - started)
      if (status !== 200) faults.push(`the stand meanwhile: ${status}`)
      await sleep(50)
    }
  })()
  for (let n = 0; n < cuts; n += 10)
    await Promise.all(Array.from({ length: Math.min(10, cuts - n) }, (_, i) => broken(target, rude, n + i)))
  over.abort()
  await working
  return {
    what: 'broken and unread connections',
    done: cuts,
    faults,
    also: `the stand meanwhile at most ${slowest} ms`,
  }
}

/** Kills one process after another while readings are written: each that was acknowledged is there once, and no other. */
export async function kills(target: Target, rounds: number): Promise<Found> {
  const faults: string[] = []
  const acknowledged: string[] = []
  const backs: number[] = []
  const device = await target.signIn('owner')
  const { body } = await device.ask(endpoints.find, { query: { q: 'school pool' } })
  const bikeId = body[0]!.id
  const before = (await device.ask(endpoints.bike, { params: { id: bikeId } })).body.readings.length
  const over = new AbortController()
  const writing = (async () => {
    while (!over.signal.aborted) {
      const reading = await readingOf(device, bikeId).catch(() => null)
      const key = v7()
      // Sent again under its key until somebody answers, as a tablet does.
      for (let tries = 0; reading && tries < 400; tries++) {
        const status = await device.ask(endpoints.takeReading, { body: reading, key }).then(
          (answer) => answer.status,
          () => 0,
        )
        if (status === 200) {
          acknowledged.push(String(reading['id']))
          break
        }
        await sleep(150)
      }
      await sleep(20)
    }
  })()
  for (let n = 0; n < rounds; n++) {
    const all = Object.entries(target.processes()).filter((one): one is [string, number] => one[1] !== null)
    const [what, pid] = all[n % all.length]!
    await sleep(400 + ((n * 131) % 900))
    try {
      process.kill(pid, 'SIGKILL')
    } catch {
      continue
    }
    await sleep(300)
    const back = await target.readyIn(60_000)
    if (back === null || back > 15_000) faults.push(`${what} was not back within 15 s (${back ?? 'never'})`)
    if (back !== null) backs.push(back)
  }
  over.abort()
  await writing
  const { body: after } = await device.ask(endpoints.bike, { params: { id: bikeId } })
  const there = after.readings.map(({ id }) => id)
  for (const id of acknowledged)
    if (there.filter((one) => one === id).length !== 1) faults.push(`reading ${id} is lost`)
  if (there.length !== before + acknowledged.length)
    faults.push(`${there.length - before} readings for ${acknowledged.length} acknowledged`)
  const worst = Math.max(0, ...backs)
  return {
    what: 'kills while readings are written',
    done: rounds,
    faults,
    also: `back after at most ${(worst / 1000).toFixed(1)} s; ${acknowledged.length} readings acknowledged, each there once`,
  }
}
