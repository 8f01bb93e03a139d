import { isIPv6 } from 'node:net'

/** Where what listens on every address is reached from this machine. */
const EVERY: Readonly<Record<string, string>> = { '0.0.0.0': '127.0.0.1', '::': '::1' }

/** The address, as a browser takes it, of a server that listens on a host's name or number. */
export function addressOf({ host, port }: { readonly host: string; readonly port: number }): string {
  const reached = EVERY[host] ?? host
  return `http://${isIPv6(reached) ? `[${reached}]` : reached}:${port}`
}
