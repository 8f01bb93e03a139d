import { createConnection, type Socket } from 'node:net'
import split2 from 'split2'
import type { GaugeState } from '@pelrin/contract'
import { LONGEST_LINE, understand, type GaugeLine } from './lines.ts'

export interface LinkPatience {
  /** Between two questions whether it is there, ms. */
  readonly pingMs: number
  /** Without a line for so long it is silent, and the line is dropped, ms. */
  readonly silentMs: number
  /** Before the first new try; doubles up to the longest, ms. */
  readonly retryMs: number
  readonly longestRetryMs: number
  /** Readings a second that a hand can make; more is a fault. */
  readonly mostReadings: number
}

/** What is longer than a line may be is thrown away up to its end, and the line goes on. */
const LINES = { maxLength: LONGEST_LINE, skipOverflow: true }

export const PATIENCE: LinkPatience = {
  pingMs: 4_000,
  silentMs: 10_000,
  retryMs: 500,
  longestRetryMs: 8_000,
  mostReadings: 8,
}

export interface LinkListener {
  reading(percent: number): void
  zeroed(): void
  changed(): void
}

/**
 * The line to one gauge: kept open, opened again when it breaks, each reading handed on once. Whatever the gauge
 * sends, memory and work stay small: long lines are cut, rubbish is counted, a flood is cut off.
 */
export class GaugeLink {
  state: GaugeState = 'away'
  battery: number | null = null
  zeroedAt: Date | null = null
  garbled = 0
  private socket: Socket | null = null
  private closed = false
  private retry: NodeJS.Timeout | null = null
  private ping: NodeJS.Timeout | null = null
  private wait: number
  private heardAt = 0
  /** What numbers belong to: the gauge, and the time it was last switched on. */
  private boot = ''
  private lastNumber = 0
  private second = { began: 0, readings: 0 }

  constructor(
    private readonly address: { readonly host: string; readonly port: number },
    private readonly listener: LinkListener,
    private readonly patience: LinkPatience = PATIENCE,
  ) {
    this.wait = patience.retryMs
    this.open()
  }

  /** Sends a line. @returns false when nobody is there to take it */
  send(line: string): boolean {
    if (!this.socket || this.socket.destroyed || this.state === 'away') return false
    this.socket.write(`${line}\n`)
    return true
  }

  /** Drops the line as a pulled plug would; it is opened again by itself. */
  drop(): void {
    this.socket?.destroy()
  }

  close(): void {
    this.closed = true
    if (this.retry) clearTimeout(this.retry)
    if (this.ping) clearInterval(this.ping)
    this.socket?.destroy()
  }

  private open(): void {
    const socket = createConnection(this.address)
    this.socket = socket
    socket.setNoDelay(true)
    socket.on('error', () => socket.destroy())
    socket.on('connect', () => {
      this.heardAt = Date.now()
      this.garbled = 0
      this.ping = setInterval(() => this.ask(socket), this.patience.pingMs)
    })
    socket.on('close', () => {
      if (this.ping) clearInterval(this.ping)
      // Why it was dropped is told until it speaks again.
      if (this.state === 'connected') this.become('away')
      if (this.closed) return
      this.retry = setTimeout(() => this.open(), this.wait)
      this.wait = Math.min(this.wait * 2, this.patience.longestRetryMs)
    })
    socket
      .pipe(split2(LINES))
      .on('data', (line: string) => this.heard(line, socket))
      .on('error', () => socket.destroy())
  }

  private ask(socket: Socket): void {
    if (Date.now() - this.heardAt > this.patience.silentMs) {
      this.become('silent')
      socket.destroy()
    } else socket.write('PING\n')
  }

  private heard(text: string, socket: Socket): void {
    const line = understand(text.trim())
    if (!line) {
      this.garbled++
      return
    }
    this.heardAt = Date.now()
    if (line.word === 'hello') {
      this.wait = this.patience.retryMs
      const boot = `${line.serial} ${line.boot}`
      if (boot !== this.boot) this.lastNumber = 0
      this.boot = boot
      this.become('connected')
    } else if (line.word === 'battery') {
      this.battery = line.percent
      this.listener.changed()
    } else if (line.word !== 'pong') this.numbered(line, socket)
  }

  private numbered(line: Extract<GaugeLine, { number: number }>, socket: Socket): void {
    // What is not believed is not acknowledged either.
    if (this.tooMany(socket)) return
    socket.write(`ACK ${line.number}\n`)
    // A line sent twice is the same press of the button.
    if (line.number <= this.lastNumber) return
    this.lastNumber = line.number
    if (line.word === 'zero') {
      this.zeroedAt = new Date()
      this.listener.zeroed()
      this.listener.changed()
      return
    }
    if (this.state !== 'connected') this.become('connected')
    this.listener.reading(line.percent)
  }

  /**
   * More readings than a hand can make: none of that second is believed. The line is dropped with all that waits in
   * it, and tried again after a rest.
   */
  private tooMany(socket: Socket): boolean {
    if (socket.destroyed) return true
    const now = Date.now()
    if (now - this.second.began >= 1_000) this.second = { began: now, readings: 0 }
    this.second.readings++
    if (this.second.readings <= this.patience.mostReadings) return false
    this.become('flooding')
    this.wait = this.patience.longestRetryMs
    socket.destroy()
    return true
  }

  private become(state: GaugeState): void {
    if (this.state === state) return
    this.state = state
    this.listener.changed()
  }
}
