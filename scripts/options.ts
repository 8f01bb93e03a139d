import { resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { PlainError } from './plain.ts'

export interface Options {
  readonly port: number
  readonly host: string
  readonly dataFolder: string
  readonly demo: boolean
  readonly dev: boolean
}

/** Reads the start command's options. @throws PlainError for what is not one */
export function readOptions(args: readonly string[], root: string): Options {
  let values
  try {
    ;({ values } = parseArgs({
      args: [...args],
      options: {
        port: { type: 'string', default: '7340' },
        host: { type: 'string', default: '127.0.0.1' },
        data: { type: 'string' },
        demo: { type: 'boolean', default: true },
        dev: { type: 'boolean', default: false },
      },
      allowNegative: true,
    }))
  } catch (error) {
    throw new PlainError(`${(error as Error).message.split('. ')[0]}. See npm start -- --help.`)
  }
  const port = Number(values.port)
  if (!/^\d+$/.test(values.port) || port < 1 || port > 65_535)
    throw new PlainError(`--port takes a number from 1 to 65535, not "${values.port}".`)
  return {
    port,
    host: values.host,
    dataFolder: values.data === undefined ? resolve(root, '.pelrin') : resolve(values.data),
    demo: values.demo,
    dev: values.dev,
  }
}

const isLoopback = (host: string): boolean => host === 'localhost' || host === '::1' || host.startsWith('127.')

/**
 * The demo shop tells its passwords to whoever opens its door.
 *
 * @throws PlainError where others than those at this machine could
 */
export function refuseOpenDemo({ host }: Options, demo: boolean): void {
  if (!demo || (isLoopback(host) && process.env['TRUST_PROXY'] !== 'yes')) return
  throw new PlainError(
    'The demo shop shows its passwords to whoever can reach it, so it is served on this machine only. Leave --host (and TRUST_PROXY) out, or start a shop of your own with --no-demo and --data naming another folder.',
  )
}
