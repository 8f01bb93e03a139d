import { Readable } from 'node:stream'
import { createTransport, type SendMailOptions } from 'nodemailer'
import SMTPConnection from 'nodemailer/lib/smtp-connection'
import type { MailFared } from '@pelrin/contract'

/** A mail server as it is reached. */
export interface MailServer {
  readonly host: string
  readonly port: number
  readonly security: 'tls' | 'starttls' | 'none'
  readonly userName: string | null
  readonly password: string | null
}

export interface Fared extends MailFared {
  /** It will not have this address, now or later: no mail goes there until it is another. */
  readonly addressRefused: boolean
}

/** Until the server is ready to take the message, ms: nothing has gone out until then. */
const READY_MS = 15_000
/** A server may look long through what it was given before it says that it has it, ms. */
const TAKES_MS = 120_000

/** Something of ours went wrong before the message was given away. */
class NotHanded extends Error {}

/**
 * Hands one mail to a server. Tells what became of it rather than throwing; what it cannot know it calls unsure: the connection ended after
 * the whole message was written and before the server said it has it.
 *
 * @param handing is told once nothing stands between the message and the server any more, before its first byte goes; what it throws keeps the
 *   message here
 */
export async function handOver(
  server: MailServer,
  mail: SendMailOptions,
  handing: () => Promise<void> = () => Promise.resolve(),
): Promise<Fared> {
  const { envelope, message } = await createTransport({
    streamTransport: true,
    buffer: true,
    newline: 'windows',
  }).sendMail(mail)
  const connection = new SMTPConnection({
    host: server.host,
    port: server.port,
    secure: server.security === 'tls',
    requireTLS: server.security === 'starttls',
    ignoreTLS: server.security === 'none',
    connectionTimeout: READY_MS,
    greetingTimeout: READY_MS,
    socketTimeout: TAKES_MS,
  })
  let written = false
  let impatient: NodeJS.Timeout | undefined
  const content = Readable.from(
    (async function* () {
      clearTimeout(impatient)
      try {
        await handing()
      } catch (error) {
        throw new NotHanded('not handed over', { cause: error })
      }
      yield message as Buffer
      written = true
    })(),
    { objectMode: false },
  )
  try {
    await new Promise<void>((done, failed) => {
      impatient = setTimeout(() => failed(new Error('The mail server was not ready in time.')), READY_MS)
      connection.once('error', failed)
      connection.once('end', () => failed(Object.assign(new Error('closed'), { code: 'ECONNECTION' })))
      content.once('error', (error) => {
        connection.close()
        failed(error)
      })
      const send = (): void =>
        connection.send(
          { ...envelope, from: envelope.from || '', size: (message as Buffer).length },
          content,
          (error) => (error ? failed(error) : done()),
        )
      connection.connect((error) => {
        if (error) failed(error)
        else if (server.userName === null) send()
        else
          connection.login({ user: server.userName, pass: server.password ?? '' }, (wrong) =>
            wrong ? failed(wrong) : send(),
          )
      })
    })
    return { fared: 'taken', said: null, addressRefused: false }
  } catch (error) {
    if (error instanceof NotHanded) throw error.cause as Error
    return faredBy(error as SmtpError, written)
  } finally {
    clearTimeout(impatient)
    connection.close()
  }
}

interface SmtpError extends Error {
  readonly code?: string
  readonly command?: string
  readonly response?: string
  readonly responseCode?: number
}

/** What an error of the connection says of the message. */
function faredBy({ code, command, response, responseCode, message }: SmtpError, written: boolean): Fared {
  const said = (response ?? message).replace(/\s+/g, ' ').trim().slice(0, 300)
  const because = (fared: Fared['fared'], addressRefused = false): Fared => ({ fared, said, addressRefused })
  if (code === 'EAUTH') return because('sign-in')
  if (/certificate|self.signed|altname/i.test(message)) return because('certificate')
  if (code === 'ETLS' || message.includes('STARTTLS')) return because('no-encryption')
  if (responseCode !== undefined && responseCode >= 500 && code !== 'ECONNECTION')
    return because('refused', command === 'RCPT TO')
  // It said no for now, and means the message as a whole: it has none of it.
  if (responseCode !== undefined && responseCode >= 400) return because('away')
  return because(written ? 'unsure' : 'away')
}
