import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import type { Role } from '@pelrin/contract'
import { Device } from '../../server/src/testing/device.ts'
import { PlainError } from '../plain.ts'

const root = join(import.meta.dirname, '../..')

/** Those of the demo shop. */
export const ACCOUNTS: Readonly<Record<Role, readonly [string, string]>> = {
  owner: ['tove', 'causeway-1'],
  mechanic: ['ruan', 'chalkdown-2'],
  desk: ['lowen', 'fairway-6'],
  apprentice: ['ismay', 'eelgrass-3'],
  'read-only': ['coral', 'slipway-4'],
}

/** A Pelrin of its own on this machine, by the real start command, to be attacked. */
export class Target {
  private constructor(
    readonly base: string,
    readonly port: number,
    private readonly folder: string,
    private readonly pid: number,
  ) {}

  static async start(port: number): Promise<Target> {
    const folder = mkdtempSync(join(tmpdir(), 'pelrin-attacked-'))
    chmodSync(folder, 0o755)
    const child = spawn(process.execPath, [join(root, 'scripts/start.mjs'), '--port', String(port), '--data', folder], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'ignore'],
    })
    const target = new Target(`http://127.0.0.1:${port}`, port, folder, child.pid!)
    if ((await target.readyIn(180_000)) === null) throw new PlainError('The copy to attack did not start.')
    return target
  }

  async signIn(role: Role): Promise<Device> {
    const device = new Device(this.base)
    await device.signIn(...ACCOUNTS[role])
    return device
  }

  /** How long it takes until it serves, ms; null where it does not within a time. */
  async readyIn(most: number): Promise<number | null> {
    const started = Date.now()
    for (let there = 0; Date.now() - started < most;) {
      await sleep(200)
      const ready = await fetch(`${this.base}/health/ready`, { signal: AbortSignal.timeout(2_000) }).then(
        ({ ok }) => ok,
        () => false,
      )
      there = ready ? there + 1 : 0
      if (there === 3) return Date.now() - started
    }
    return null
  }

  private childOf(pid: number, command: string): number | null {
    const { stdout } = spawnSync('pgrep', ['-P', String(pid), '-f', command], { encoding: 'utf8' })
    const [first = ''] = stdout.trim().split('\n')
    return first === '' ? null : Number(first)
  }

  /** The processes it is made of, by what they are. */
  processes(): Readonly<Record<'server' | 'database' | 'backend' | 'supervisor', number | null>> {
    const supervisor = this.childOf(this.pid, 'scripts/start.ts')
    let database: number | null = null
    try {
      database = Number(readFileSync(join(this.folder, 'postgres/cluster/postmaster.pid'), 'utf8').split('\n')[0])
    } catch {
      // It is down at the moment.
    }
    return {
      supervisor,
      server: supervisor && this.childOf(supervisor, 'server/src/main.ts'),
      database,
      backend: database && this.childOf(database, 'pelrin pelrin'),
    }
  }

  /** Memory the server holds, MB. */
  memory(): number {
    const { server } = this.processes()
    if (server === null) return Number.NaN
    const [, kb = 'NaN'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server}/status`, 'utf8')) ?? []
    return Math.round(Number(kb) / 1024)
  }

  async stop(): Promise<void> {
    process.kill(this.pid, 'SIGINT')
    for (let i = 0; i < 300 && spawnSync('pgrep', ['-f', this.folder]).status === 0; i++) await sleep(100)
    rmSync(this.folder, { recursive: true, force: true })
  }
}
