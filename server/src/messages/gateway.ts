import * as v from 'valibot'

const Event = v.variant('kind', [
  v.object({ number: v.number(), kind: v.picklist(['delivered', 'failed']), reference: v.string() }),
  v.object({ number: v.number(), kind: v.literal('reply'), reference: v.string(), text: v.string() }),
])
export type GatewayEvent = v.InferOutput<typeof Event>
const Events = v.object({ events: v.array(Event) })

/** The gateway could not be asked, or what it said could not be read. */
export class GatewayAway extends Error {}

const TIMEOUT_MS = 4_000

/** A message gateway as it is asked over the wire. */
export class Gateway {
  /** @param address `host:port` */
  constructor(
    private readonly address: string,
    private readonly token: string,
  ) {}

  /**
   * Sends a message under a reference; one that was taken before is not sent again.
   *
   * @returns whether it was taken; false where it never will be
   * @throws GatewayAway when nobody knows
   */
  async send(message: { reference: string; to: string; text: string }): Promise<boolean> {
    const response = await this.ask('/v1/messages', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(message),
    })
    if (response.ok) return true
    if (response.status >= 400 && response.status < 500 && response.status !== 429) return false
    throw new GatewayAway(`answered ${response.status}`)
  }

  /** Whether it took a message. @throws GatewayAway */
  async has(reference: string): Promise<boolean> {
    const response = await this.ask(`/v1/messages/${reference}`)
    if (response.status === 404) return false
    if (!response.ok) throw new GatewayAway(`answered ${response.status}`)
    return true
  }

  /** What happened after an event, by rising number, each once. @throws GatewayAway */
  async eventsAfter(number: number): Promise<GatewayEvent[]> {
    const response = await this.ask(`/v1/events?after=${number}`)
    if (!response.ok) throw new GatewayAway(`answered ${response.status}`)
    const parsed = v.safeParse(Events, await response.json().catch(() => null))
    if (!parsed.success) throw new GatewayAway('garbled')
    const byNumber = new Map(parsed.output.events.map((event) => [event.number, event]))
    return [...byNumber.values()].sort((a, b) => a.number - b.number)
  }

  private async ask(
    path: string,
    init: { method?: string; headers?: Record<string, string>; body?: string } = {},
  ): Promise<Response> {
    try {
      return await fetch(`http://${this.address}${path}`, {
        ...init,
        headers: { ...init.headers, authorization: `Bearer ${this.token}` },
        signal: AbortSignal.timeout(TIMEOUT_MS),
      })
    } catch (error) {
      throw new GatewayAway(String(error))
    }
  }
}
