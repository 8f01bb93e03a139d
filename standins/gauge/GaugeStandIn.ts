import { setTimeout as sleep } from 'node:timers/promises'
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net'
import { createInterface } from 'node:readline'

export const FAULTS = ['slow', 'silent', 'half', 'garbage', 'duplicates', 'drift', 'flood'] as const
export type Fault = (typeof FAULTS)[number]

/** How long a slow gauge thinks before each line, ms. */
const SLOW_MS = 2_000
/** Between the halves of a line, ms. */
const HALF_MS = 40
/** How far a drifting zero creeps with every reading, %. */
const DRIFT = 0.02
const RUBBISH = ['\u0000\u0007~~', 'REA', 'READ x y', 'READ 1e9 9e9', '}{', 'ZERO', 'BATT -4', 'READ 3 0.5 0.5']

/** A digital gauge that is not there: it speaks the protocol of PROTOCOL.md, and fails on request. */
export class GaugeStandIn {
  private readonly server: Server
  /** Everybody connected, each with what is still to be sent to them, in order. */
  private readonly sockets = new Map<Socket, Promise<void>>()
  private readonly faults = new Set<Fault>()
  private number = 0
  private battery = 87
  private wear = 0.42
  private drifted = 0
  private boot = 1
  /** Numbered lines nobody has acknowledged yet: sent again after the next HELLO. */
  private unheard: { readonly number: number; readonly line: string }[] = []
  private flood: NodeJS.Timeout | null = null

  constructor(private readonly serial = 'SG-0042') {
    this.server = createServer((socket) => this.connected(socket))
  }

  /** @param port 0 for any free one. @returns the port it listens on, loopback only */
  listen(port = 0): Promise<number> {
    return new Promise((done, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', () => done((this.server.address() as AddressInfo).port))
    })
  }

  close(): Promise<void> {
    if (this.flood) clearInterval(this.flood)
    this.unplug()
    return new Promise((done) => this.server.close(() => done()))
  }

  /** Pulls the plug of everybody connected; the gauge itself stays on. */
  unplug(): void {
    for (const socket of this.sockets.keys()) socket.destroy()
    this.sockets.clear()
  }

  /** Switches it off and on again: its numbers begin anew. */
  reboot(): void {
    this.boot++
    this.number = 0
    this.unheard = []
    this.unplug()
  }

  setFault(fault: Fault, on: boolean): void {
    if (on) this.faults.add(fault)
    else this.faults.delete(fault)
    if (fault === 'flood') this.setFlood(on)
  }

  /** Presses its button. @param percent what is truly there; without it a place of the chain now under it */
  press(percent?: number): void {
    this.number++
    if (this.faults.has('drift')) this.drifted += DRIFT
    // Places of one chain differ a little, in the same way every time.
    const place = 0.03 * Math.sin(this.number * 2.4)
    const shown = (percent ?? Math.max(0, this.wear + place)) + this.drifted
    if (this.number % 20 === 0) this.battery = Math.max(1, this.battery - 1)
    this.deliver(`READ ${this.number} ${shown.toFixed(2)}`)
  }

  squeeze(): void {
    this.number++
    this.drifted = 0
    this.deliver(`ZERO ${this.number}`)
  }

  private connected(socket: Socket): void {
    this.sockets.set(socket, Promise.resolve())
    socket.on('close', () => this.sockets.delete(socket))
    socket.on('error', () => socket.destroy())
    createInterface({ input: socket })
      .on('line', (line) => this.told(line, socket))
      .on('error', () => socket.destroy())
    this.write(socket, `HELLO gauge 1 ${this.serial} ${this.boot}`)
    this.write(socket, `BATT ${this.battery}`)
    for (const { line } of this.unheard) this.write(socket, line)
  }

  private told(line: string, socket: Socket): void {
    const [word = '', first, second] = line.trim().split(' ')
    if (word === 'PING') this.write(socket, 'PONG')
    else if (word === 'ACK') this.unheard = this.unheard.filter(({ number }) => number > Number(first))
    else if (word === 'PRESS') this.press(first === undefined ? undefined : Number(first))
    else if (word === 'SQUEEZE') this.squeeze()
    else if (word === 'WEAR') this.wear = Number(first)
    else if (word === 'FAULT' && FAULTS.includes(first as Fault)) this.setFault(first as Fault, second === 'on')
  }

  private deliver(line: string): void {
    this.unheard.push({ number: this.number, line })
    for (const socket of this.sockets.keys()) this.write(socket, line)
  }

  /** Puts a line behind those still to be sent; faults are as they were when it was said. */
  private write(socket: Socket, line: string): void {
    const faults = new Set(this.faults)
    if (faults.has('silent')) return
    const before = this.sockets.get(socket)
    if (before)
      this.sockets.set(
        socket,
        before.then(() => sendLine(socket, line, faults)),
      )
  }

  private setFlood(on: boolean): void {
    if (this.flood) clearInterval(this.flood)
    this.flood = on
      ? setInterval(() => {
          for (const socket of this.sockets.keys())
            if (!socket.writableNeedDrain)
              socket.write(
                Array.from({ length: 100 }, () => `READ ${++this.number} ${(this.number % 100) / 100}\n`).join(''),
              )
        }, 10)
      : null
  }
}

/** Sends one line, as badly as the faults have it. */
async function sendLine(socket: Socket, line: string, faults: ReadonlySet<Fault>): Promise<void> {
  const send = (text: string): void => {
    if (!socket.destroyed) socket.write(text)
  }
  if (faults.has('slow')) await sleep(SLOW_MS)
  if (faults.has('garbage')) for (const rubbish of RUBBISH) send(`${rubbish}\n`)
  if (faults.has('half')) {
    const middle = Math.floor(line.length / 2)
    send(line.slice(0, middle))
    await sleep(HALF_MS)
    send(`${line.slice(middle)}\n`)
  } else send(`${line}\n`)
  if (faults.has('duplicates')) send(`${line}\n`)
}
