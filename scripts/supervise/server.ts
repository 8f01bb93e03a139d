import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import type { BackupAsked, BackupTold } from '../../server/src/backups/backups.ts'
import { addressOf } from '../address.ts'
import { PlainError, say } from '../plain.ts'
import { programOf } from '../program.ts'
import { Restarts } from './restarts.mjs'
import { unprivileged } from './unprivileged.ts'

const root = join(import.meta.dirname, '../..')

/** A server that is told to stop and does not is ended, ms. */
const STOPPING_MS = 4_500
/** How often it is asked whether it lives, how long it may take to say so, and how often it may not. */
const ASKED_EVERY_MS = 2_000
const ANSWER_MS = 4_000
const SILENCES = 4

/** What the server runs on. */
export interface ServerOptions {
  /** Where its source lies from the root. */
  readonly program: string
  readonly host: string
  readonly port: number
  readonly env: NodeJS.ProcessEnv
  /** Makes and lists backups for it; undefined where somebody else does. */
  readonly backups: { list(): Promise<BackupTold['backups']>; make(): Promise<BackupTold['backups']> } | undefined
  /** Told when it stays down. */
  readonly gaveUp: () => void
}

/**
 * The server as a process of its own: started again within two seconds when it ends by itself, ended and started again when it lives and does
 * not answer.
 */
export class SupervisedServer {
  private child: ChildProcess | null = null
  private readonly leaving = new AbortController()
  private silences = 0
  private watching: NodeJS.Timeout | undefined
  private readonly restarts = new Restarts()

  constructor(private readonly options: ServerOptions) {}

  /** Starts it and waits until it listens. @throws PlainError when it does not */
  async start(): Promise<void> {
    await this.spawn()
  }

  private stopping(): boolean {
    return this.leaving.signal.aborted
  }

  async stop(): Promise<void> {
    this.leaving.abort()
    clearInterval(this.watching)
    const { child } = this
    if (child?.exitCode !== null || child.signalCode !== null) return
    const ended = new Promise((done) => child.on('exit', done))
    child.kill('SIGTERM')
    const timer = setTimeout(() => child.kill('SIGKILL'), STOPPING_MS)
    await ended
    clearTimeout(timer)
  }

  /** Ends it by force. */
  kill(): void {
    this.leaving.abort()
    clearInterval(this.watching)
    this.child?.kill('SIGKILL')
  }

  private spawn(): Promise<void> {
    const { program, host, port, env } = this.options
    const [command, args] = unprivileged(process.execPath, programOf(program), port)
    const child = spawn(command, args, {
      cwd: root,
      // A group of its own, so that Ctrl-C comes to us alone and we stop things in order.
      detached: true,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: { ...env, HOST: host, PORT: String(port) },
    })
    this.child = child
    return new Promise((done, reject) => {
      let listening = false
      child.on('message', (message: { listening?: number; failed?: string } & Partial<BackupAsked>) => {
        if (message.backups !== undefined) this.backUp(child, message as BackupAsked)
        else if (message.failed !== undefined)
          reject(new PlainError(`The server could not listen on ${host}:${port} (${message.failed}).`))
        else {
          listening = true
          this.silences = 0
          // Not before: how long it takes to begin is the machine's affair.
          this.watching = setInterval(() => {
            this.watch().catch(this.lost)
          }, ASKED_EVERY_MS)
          done()
        }
      })
      child.on('error', (error) => reject(new PlainError(`The server could not be started (${error.message}).`)))
      child.on('exit', (code, signal) => {
        clearInterval(this.watching)
        if (!listening) reject(new PlainError(`The server ended before it served (${signal ?? `code ${code}`}).`))
        else if (!this.stopping()) this.again(signal ?? `code ${code}`).catch(this.lost)
      })
    })
  }

  /** Starts it again after it ended by itself, as often as that helps. */
  private async again(how: string): Promise<void> {
    for (let why = how; !this.stopping();) {
      const wait = this.restarts.next(Date.now())
      if (wait === null) {
        say(`The server ended ten times within a minute (${why}) and stays down. What it said is above.`)
        this.options.gaveUp()
        return
      }
      say(`The server ended by itself (${why}); starting it again.`)
      await sleep(wait)
      if (this.stopping()) return
      try {
        await this.spawn()
        return
      } catch (error) {
        why = (error as Error).message
      }
    }
  }

  private async watch(): Promise<void> {
    const { child } = this
    // Whatever it answers, it lives.
    const answered = await fetch(`${addressOf(this.options)}/health/live`, {
      signal: AbortSignal.timeout(ANSWER_MS),
    }).then(
      () => true,
      () => false,
    )
    if (this.stopping() || child !== this.child || child?.exitCode !== null) return
    this.silences = answered ? 0 : this.silences + 1
    if (this.silences < SILENCES) return
    this.silences = 0
    say('The server lives and does not answer; ending it.')
    child.kill('SIGKILL')
  }

  /** Nothing of this may end the one who watches. */
  private readonly lost = (error: unknown): void => say((error as Error).message)

  private backUp(child: ChildProcess, { backups: what, id }: BackupAsked): void {
    const tell = (told: BackupTold): void => {
      if (child.connected) child.send(told)
    }
    Promise.resolve(this.options.backups?.[what]() ?? []).then(
      (backups) => tell({ backups, failed: null, id }),
      (error: unknown) => tell({ backups: null, failed: (error as Error).message, id }),
    )
  }
}
