import type { AddressInfo } from 'node:net'
import { simpleParser, type ParsedMail } from 'mailparser'
import { SMTPServer } from 'smtp-server'

/** What a mail server does wrong. */
export interface MailFaults {
  /** Says no to every recipient: for good, or for now. */
  recipient?: 550 | 451 | undefined
  /** Says no to the whole message once it has it. */
  message?: 554 | 452 | undefined
  /** Ends the connection: where the message would begin, or once it has all of it, without a word. */
  hangsUp?: 'before' | 'after' | undefined
}

/** A real mail server on this machine, which keeps what it takes and can be told to fail. */
export class MailServer {
  readonly taken: ParsedMail[] = []
  readonly faults: MailFaults = {}
  private readonly server: SMTPServer

  /** @param kind `plain` knows no encryption; `certified` offers it by a certificate nobody signed; `known` lets in who has the password */
  constructor(kind: 'plain' | 'certified' | 'known' = 'plain') {
    this.server = new SMTPServer({
      disabledCommands: kind === 'known' ? ['STARTTLS'] : kind === 'plain' ? ['STARTTLS', 'AUTH'] : ['AUTH'],
      authOptional: kind !== 'known',
      allowInsecureAuth: true,
      closeTimeout: 200,
      onAuth: ({ username, password }, _session, done) =>
        password === 'tarred rope'
          ? done(null, { user: username })
          : done(Object.assign(new Error('Wrong name or password'), { responseCode: 535 })),
      onRcptTo: (_address, session, done) => {
        if (this.faults.hangsUp === 'before') {
          this.hangUp(session.id)
          return
        }
        const { recipient } = this.faults
        done(recipient ? Object.assign(new Error('No such mailbox here'), { responseCode: recipient }) : null)
      },
      onData: (stream, session, done) => {
        simpleParser(stream, (_error, mail) => {
          const { message, hangsUp } = this.faults
          if (message === undefined) this.taken.push(mail)
          if (message !== undefined) done(Object.assign(new Error('Not this message'), { responseCode: message }))
          else if (hangsUp === 'after') this.hangUp(session.id)
          else done()
        })
      },
    })
    this.server.on('error', () => undefined)
  }

  private hangUp(sessionId: string): void {
    const { connections } = this.server as unknown as { connections: Set<{ id: string; _socket: { destroy(): void } }> }
    for (const one of connections) if (one.id === sessionId) one._socket.destroy()
  }

  /** @returns the port it listens on */
  async listen(): Promise<number> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done))
    return (this.server.server.address() as AddressInfo).port
  }

  close(): Promise<void> {
    return new Promise((done) => this.server.close(done))
  }
}
