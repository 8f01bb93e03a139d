import type { IncomingMessage, ServerResponse } from 'node:http'
import { bodyOf, HttpStandIn } from '../HttpStandIn.ts'

/** What can go wrong on request. */
export interface Faults {
  /** Takes the question and never answers. */
  silent: boolean
  /** Shows what it showed when this was switched on, for good. */
  stuck: boolean
  /** Every fifth answer is far off. */
  spikes: boolean
  /** Answers in the other unit and does not say so. */
  wrongUnit: boolean
  /** No JSON. */
  garbled: boolean
}

const SPIKE = 60
const EVERY = 5

/** A thermometer in a wax pot that holds a temperature, on loopback; see PROTOCOL.md. */
export class ThermometerStandIn extends HttpStandIn {
  readonly faults: Faults = { silent: false, stuck: false, spikes: false, wrongUnit: false, garbled: false }
  private target = 84
  private answers = 0
  private shown = 84

  constructor(private readonly now: () => number = Date.now) {
    super()
  }

  protected async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const { pathname } = new URL(request.url ?? '/', 'http://stand-in')
    const send = (status: number, text: string): void =>
      void response.writeHead(status, { 'content-type': 'application/json' }).end(text)
    if (request.method === 'POST') {
      const told = (await bodyOf(request)) as Partial<Faults> & { celsius?: number }
      if (pathname === '/faults') Object.assign(this.faults, told)
      if (pathname === '/hold' && typeof told.celsius === 'number') this.target = told.celsius
      send(200, JSON.stringify({ ...this.faults, target: this.target }))
    } else if (pathname !== '/celsius') send(404, '{}')
    else if (!this.faults.silent)
      send(200, this.faults.garbled ? '{"celsius": 8' : JSON.stringify({ celsius: this.read() }))
  }

  /** What it shows: the thermostat swings by some tenths about what it holds. */
  private read(): number {
    this.answers++
    if (!this.faults.stuck)
      this.shown = this.target + 0.8 * Math.sin(this.now() / 45_000) + 0.1 * Math.sin(this.answers)
    const celsius = this.shown + (this.faults.spikes && this.answers % EVERY === 0 ? SPIKE : 0)
    return Math.round(10 * (this.faults.wrongUnit ? celsius * 1.8 + 32 : celsius)) / 10
  }
}
