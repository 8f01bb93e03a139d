import { spawn } from 'node:child_process'
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'

const root = join(import.meta.dirname, '../..')
const PORT = 7389
/** After so long nothing of the start is under way any more, ms. */
const IDLE_MS = 30_000

/** The processes under one, itself among them: what each is, and what it holds of memory, MB. */
function under(pid: number): { what: string; mb: number }[] {
  const status = (one: string): string => readFileSync(`/proc/${one}/status`, 'utf8')
  const all = readdirSync('/proc').flatMap((one) => {
    if (!/^\d+$/.test(one)) return []
    try {
      const parent = Number(/^PPid:\s+(\d+)/m.exec(status(one))?.[1])
      return [{ pid: Number(one), parent, mb: Number(/^VmRSS:\s+(\d+)/m.exec(status(one))?.[1] ?? 0) / 1024 }]
    } catch {
      // It ended meanwhile.
      return []
    }
  })
  const found = new Set([pid])
  for (let grown = true; grown;) {
    grown = false
    for (const one of all)
      if (found.has(one.parent) && !found.has(one.pid)) {
        found.add(one.pid)
        grown = true
      }
  }
  return all
    .filter((one) => found.has(one.pid))
    .map(({ pid: one, mb }) => ({
      what: readFileSync(`/proc/${one}/cmdline`, 'utf8').replaceAll('\0', ' ').trim(),
      mb,
    }))
    .filter(({ what }) => what.includes('node'))
}

/** Starts the demo shop twice: how long until it answers, and what all our processes together hold once they rest. */
export async function starting(): Promise<{ what: string; value: string }[]> {
  const data = mkdtempSync(join(tmpdir(), 'pelrin-start-'))
  chmodSync(data, 0o755)
  const once = async (idle: boolean): Promise<{ ms: number; held: { what: string; mb: number }[] }> => {
    const began = performance.now()
    const child = spawn(process.execPath, ['scripts/start.mjs', '--port', String(PORT), '--data', data], {
      cwd: root,
      stdio: 'ignore',
    })
    for (let answered = false; !answered;) {
      await sleep(20)
      answered = await fetch(`http://127.0.0.1:${PORT}/health/live`).then(
        ({ ok }) => ok,
        () => false,
      )
    }
    const ms = performance.now() - began
    if (idle) await sleep(IDLE_MS)
    const held = idle ? under(child.pid!) : []
    const ended = new Promise((done) => child.on('exit', done))
    child.kill('SIGINT')
    await ended
    return { ms, held }
  }
  const first = await once(false)
  const { ms, held } = await once(true)
  rmSync(data, { recursive: true, force: true })
  const name = (what: string): string => /(\w+\/\.built\/\w+|start\.mjs)/.exec(what)?.[1] ?? what
  return [
    { what: 'first start, with database and demo shop made', value: `${(first.ms / 1000).toFixed(1)} s` },
    { what: 'second start, to its first answer', value: `${(ms / 1000).toFixed(1)} s` },
    ...held.map(({ what, mb }) => ({ what: `held at rest by ${name(what)}`, value: `${mb.toFixed(0)} MB` })),
    { what: 'held at rest by all of them', value: `${held.reduce((sum, { mb }) => sum + mb, 0).toFixed(0)} MB` },
  ]
}
