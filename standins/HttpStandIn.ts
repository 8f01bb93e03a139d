import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'

/** A stand-in that is asked over HTTP, on loopback only. */
export abstract class HttpStandIn {
  private readonly server: Server = createServer((request, response) => {
    this.answer(request, response).catch(() => response.destroy())
  })

  /** @returns where it listens, `127.0.0.1:port` */
  async listen(port = 0): Promise<string> {
    await new Promise<void>((done) => this.server.listen(port, '127.0.0.1', done))
    return `127.0.0.1:${(this.server.address() as AddressInfo).port}`
  }

  async close(): Promise<void> {
    this.server.closeAllConnections()
    await new Promise((done) => this.server.close(done))
  }

  protected abstract answer(request: IncomingMessage, response: ServerResponse): Promise<void>
}

/** What was sent along, as JSON; nothing is an empty object. */
export async function bodyOf(request: IncomingMessage): Promise<Record<string, unknown>> {
  let text = ''
  for await (const chunk of request) text += String(chunk)
  return JSON.parse(text === '' ? '{}' : text) as Record<string, unknown>
}
