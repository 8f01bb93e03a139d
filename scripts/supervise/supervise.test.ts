import { spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { describe, expect, it, onTestFinished } from 'vitest'
import { addressOf } from '../address.ts'
import { isRoot } from '../postgres/account.ts'
import { readOptions, refuseOpenDemo } from '../options.ts'
import { PlainError, sentenceOf } from '../plain.ts'
import { Restarts } from './restarts.mjs'
import { SupervisedServer } from './server.ts'
import { asNobody, READS } from './unprivileged.ts'

describe('what ended by itself', () => {
  it('is started again at once, then after longer and longer, and within two seconds the first times', () => {
    const restarts = new Restarts()
    const waits = [0, 1, 2, 3, 4, 5].map((n) => restarts.next(n * 1_000))
    expect(waits).toEqual([200, 400, 800, 1_600, 3_200, 5_000])
  })
  it('stays down after ten times within a minute, and not for what happened over a day', () => {
    const often = new Restarts()
    const waits = Array.from({ length: 11 }, (_, n) => often.next(n * 5_000))
    expect(waits.slice(0, 10).every((wait) => wait !== null)).toBe(true)
    expect(waits[10]).toBeNull()
    const seldom = new Restarts()
    for (let hour = 0; hour < 48; hour++) expect(seldom.next(hour * 3_600_000)).toBe(200)
  })
})

/** A port nobody listens on. */
const freePort = (): Promise<number> =>
  new Promise((done) => {
    const asked = createServer().listen(0, '127.0.0.1', () => {
      const { port } = asked.address() as { port: number }
      asked.close(() => done(port))
    })
  })

describe('a server', () => {
  it('that takes long to begin again is let begin, and one that refuses who asks is not ended', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pelrin-slow-'))
    chmodSync(folder, 0o755)
    const program = join(folder, 'slow.mjs')
    // The second time it takes longer than a silent server is let live.
    writeFileSync(
      program,
      `import { createServer } from 'node:http'
      const began = Date.now() - Number(process.env.FIRST) > 1_000 ? 10_000 : 0
      setTimeout(() => {
        const server = createServer((request, response) => {
          if (request.url === '/end') process.exit(3)
          response.writeHead(421).end(String(process.pid))
        })
        server.listen(Number(process.env.PORT), '127.0.0.1', () => process.send({ listening: 1 }))
      }, began)`,
    )
    let down = false
    const listens = { host: '127.0.0.1', port: await freePort() }
    const options = { program, backups: undefined, gaveUp: () => (down = true) }
    const server = new SupervisedServer({ ...options, ...listens, env: { ...process.env, FIRST: String(Date.now()) } })
    onTestFinished(() => server.stop())
    const answer = (): Promise<string | null> =>
      fetch(addressOf(listens)).then(
        (response) => response.text(),
        () => null,
      )
    await server.start()
    const first = await answer()
    await sleep(1_500)
    await fetch(`${addressOf(listens)}/end`).catch(() => null)
    await expect.poll(answer, { timeout: 20_000 }).not.toBeNull()
    const second = await answer()
    expect(second).not.toBe(first)
    // Long enough to be ended, were a refusal taken for silence.
    await sleep(9_000)
    expect([await answer(), down]).toEqual([second, false])
    await server.stop()
    expect(await answer()).toBeNull()
  })
  it.each([
    ['127.0.0.1', 'http://127.0.0.1:7340'],
    ['0.0.0.0', 'http://127.0.0.1:7340'],
    ['::', 'http://[::1]:7340'],
    ['::1', 'http://[::1]:7340'],
    ['localhost', 'http://localhost:7340'],
  ])('on %s is reached from this machine at %s', (host, address) => {
    expect(addressOf({ host, port: 7340 })).toBe(address)
  })
})

describe('the demo shop', () => {
  it.each(['0.0.0.0', '192.168.1.4', '::'])('is not served on %s, where others would read its passwords', (host) => {
    const options = readOptions(['--host', host], '/clone')
    expect(() => refuseOpenDemo(options, true)).toThrow(PlainError)
    expect(() => refuseOpenDemo(options, true)).toThrow('--no-demo')
    expect(() => refuseOpenDemo(options, false)).not.toThrow()
  })
  it('is served on this machine', () => {
    for (const host of ['127.0.0.1', 'localhost', '::1'])
      expect(() => refuseOpenDemo(readOptions(['--host', host], '/clone'), true)).not.toThrow()
  })
})

describe('whoever serves, where root started it', () => {
  it.runIf(isRoot())('reads what others may not enter if it has to, and writes nothing there', () => {
    const hidden = mkdtempSync(join(tmpdir(), 'pelrin-hidden-'))
    writeFileSync(join(hidden, 'main.ts'), '')
    const may = (rights: readonly string[], ...test: string[]): boolean =>
      spawnSync('setpriv', [...asNobody(rights), 'test', ...test], { cwd: '/' }).status === 0
    expect(may([], '-r', join(hidden, 'main.ts'))).toBe(false)
    expect(may([READS], '-r', join(hidden, 'main.ts'))).toBe(true)
    expect(may([READS], '-w', join(hidden, 'main.ts'))).toBe(false)
    expect(may([READS], '-w', hidden)).toBe(false)
    const { stdout } = spawnSync('setpriv', [...asNobody([READS]), 'id', '-u'], { cwd: '/', encoding: 'utf8' })
    expect(stdout.trim()).toBe('65534')
  })
})

describe('what keeps it from starting', () => {
  const refused = (code: string, path?: string): string =>
    sentenceOf(Object.assign(new Error(`${code}: x`), { code, ...(path === undefined ? {} : { path }) }))
  it('is a sentence that says what to do, not a trace', () => {
    expect(refused('ENOSPC')).toBe('The disk is full. Make room, then start again.')
    expect(refused('EACCES', '/srv/x')).toMatch(/^\/srv\/x is not readable or writable .* --data\.$/)
    expect(refused('ENOENT', '/srv/x')).toMatch(/^\/srv\/x is gone/)
    expect(sentenceOf(new PlainError('Port 80 is taken.'))).toBe('Port 80 is taken.')
    expect(sentenceOf('odd')).toBe('odd')
  })
  it('and nobody foresaw says where it happened', () => {
    expect(sentenceOf(new Error('odd'))).toContain('supervise.test.ts')
  })
})
