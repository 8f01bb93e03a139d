import { isIP } from 'node:net'
import { v7 } from 'uuid'
import type { endpoints, MailFared, MailSettings, Output } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { audited, inShop, type Author, type Work } from '../db/work.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import type { Secrets } from '../secrets.ts'
import { mailOf } from './letter.ts'
import { MAIL_SETTINGS, type MailSettingsRow } from './models.ts'
import { asShown, mailSettings, mailShown, noteTrouble } from './store.ts'
import { handOver, type MailServer } from './smtp.ts'

/**
 * Says by which server the shop's mail goes. The first time everything is said; a password is sealed before it is written.
 *
 * @throws ProblemError 412 with what somebody faster wrote; 409 with no key to seal by; 422 at a field that is missing, or where a password would
 *   travel open to another machine
 */
export async function changeMail(
  work: Work,
  version: number,
  { password, on, ...change }: Output<typeof endpoints.changeMail.body>,
  secrets: Secrets | undefined,
): Promise<MailSettings> {
  const { transaction, of } = work
  if (secrets === undefined) throw new ProblemError(409, 'secret-key-missing')
  // Two who set it up at once: the second finds what the first wrote.
  await work.select('SELECT pg_advisory_xact_lock(hashtext(:of)) AS held', { of: `mail ${work.shopId}` })
  const row = await mailSettings(work)
  const before = asShown(row)
  if (before.version !== version) throw new ProblemError(412, 'version-stale', { current: before })
  const next = {
    host: before.host,
    port: before.port,
    security: before.security,
    userName: before.userName,
    fromName: before.fromName,
    fromAddress: before.fromAddress,
    publicAddress: before.publicAddress,
    ...change,
    isOn: on ?? before.on,
    passwordSealed: password === undefined ? (row?.passwordSealed ?? null) : password && secrets.seal(password),
    version: version + 1,
    // What was said of the settings before is not said of these.
    trouble: null,
    troubleAt: null,
  }
  for (const field of ['host', 'fromName', 'fromAddress', 'publicAddress'] as const)
    if (next[field] === '') throw refuseField(field, 'text-missing')
  if (next.security === 'none' && next.passwordSealed !== null && !isHere(next.host))
    throw refuseField('security', 'mail-password-open')
  if (row) await of(MAIL_SETTINGS).update(next, { where: {}, transaction })
  else await of(MAIL_SETTINGS).create(next, { transaction })
  await audited(work, 'changed', 'mail', work.shopId, {
    ...change,
    ...(on === undefined ? {} : { on }),
    ...(password === undefined ? {} : { password: password === null ? 'none' : 'another' }),
  })
  return mailShown(work)
}

const isHere = (host: string): boolean => host === 'localhost' || (isIP(host) === 4 && host.startsWith('127.'))

/** The server as it is reached; null where its password cannot be opened here. */
export function serverOf(settings: MailSettingsRow, secrets: Secrets | undefined): MailServer | null {
  const { host, port, security, userName, passwordSealed } = settings
  const password = passwordSealed === null ? null : (secrets?.open(passwordSealed) ?? null)
  return passwordSealed !== null && password === null ? null : { host, port, security, userName, password }
}

/**
 * Sends a message to try the settings, now, in no transaction: a mail server takes its time.
 *
 * @throws ProblemError 409 with nothing set, or its password sealed by another key
 */
export async function tryMail(
  { database, secrets }: { readonly database: Database; readonly secrets: Secrets | undefined },
  shop: { readonly id: string; readonly name: string },
  author: Author,
  to: string,
): Promise<MailFared> {
  const settings = await inShop(database, shop.id, null, mailSettings)
  if (!settings) throw new ProblemError(409, 'mail-unset')
  const server = serverOf(settings, secrets)
  if (!server) throw new ProblemError(409, 'mail-password-lost')
  const mail = mailOf(settings, {
    reference: v7(),
    to: { name: '', address: to },
    subject: `${shop.name}: a trial`,
    language: 'en',
    paragraphs: ['This is a trial of the mail settings. It arrived, so mail to customers will go out.', shop.name],
    stop: null,
    sheets: [],
  })
  const { fared, said } = await handOver(server, mail)
  await inShop(database, shop.id, author, async (work) => {
    await noteTrouble(work, fared === 'taken' ? null : said)
    await audited(work, 'tried', 'mail', shop.id, { fared })
  })
  return { fared, said }
}
