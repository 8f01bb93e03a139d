import { STAND_IN } from '@pelrin/contract'

/** Where a device listens. */
export interface DeviceAddress {
  readonly host: string
  readonly port: number
}

const ENTRY = /^([\w.-]+):(\d{1,5}|\*)$/

/**
 * The addresses of devices the server may talk to, as whoever runs the machine has set them: no form and no archive can have it open a
 * connection to anywhere else.
 */
export class DeviceAddresses {
  private readonly entries: readonly { readonly host: string; readonly port: number | null }[]

  /** @param list `host:port` by commas, with `*` for every port of a host. @throws Error naming what is none */
  constructor(list: string) {
    this.entries = list
      .split(',')
      .map((entry) => entry.trim())
      .filter((entry) => entry !== '')
      .map((entry) => {
        const [, host = '', port = ''] = ENTRY.exec(entry) ?? []
        if (host === '' || Number(port) > 65_535) throw new Error(`DEVICE_ADDRESSES: "${entry}" is no host:port.`)
        return { host: host.toLowerCase(), port: port === '*' ? null : Number(port) }
      })
  }

  /** The address a text names, if the server may talk to it; null otherwise. */
  allowed(text: string): DeviceAddress | null {
    const [, host = '', port = ''] = /^([\w.-]+):(\d{1,5})$/.exec(text) ?? []
    const number = Number(port)
    if (host === '' || number < 1 || number > 65_535) return null
    const known = this.entries.some(
      (entry) => entry.host === host.toLowerCase() && (entry.port === null || entry.port === number),
    )
    return known ? { host, port: number } : null
  }

  /**
   * Where a device of a shop listens.
   *
   * @param connection as the shop has it
   * @param standIn where the stand-in listens, which this machine started itself; undefined where none runs
   */
  of(connection: string, standIn: string | undefined): DeviceAddress | null {
    if (connection !== STAND_IN) return this.allowed(connection)
    const [host = '', port] = standIn?.split(':') ?? []
    return host === '' ? null : { host, port: Number(port) }
  }
}
