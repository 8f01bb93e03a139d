import { fillTemplate } from '@pelrin/core'
import { problems, reminders } from '@pelrin/contract/messages'
import type { Sheet } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { mailOf } from '../mail/letter.ts'
import { serverOf } from '../mail/service.ts'
import { mailSettings, noteTrouble } from '../mail/store.ts'
import type { MailSettingsRow } from '../mail/models.ts'
import { handOver } from '../mail/smtp.ts'
import { referenceOf } from '../references.ts'
import type { Secrets } from '../secrets.ts'
import type { Printer } from '../sheets/printer.ts'
import { sheetOf } from '../sheets/service.ts'
import { SHOPS } from '../auth/models.ts'
import { inWords, LOCALE } from './compose.ts'
import type { Claimed, Fate } from './outgoing.ts'
import { refuseAddress } from './service.ts'
import { stopLink } from './stopLink.ts'

/** What mail is made with. */
export interface MailMaking {
  readonly secrets: Secrets
  readonly printer: Pick<Printer, 'print'>
}

interface Facts {
  readonly settings: MailSettingsRow
  readonly shop: {
    readonly name: string
    readonly timeZone: string
    readonly distanceUnit: 'km' | 'mi'
    readonly currency: string
  }
  readonly customer: string
  readonly bikes: readonly { readonly label: string; readonly sheet: Sheet }[]
}

/** Somebody else has this message by now, or its customer wants none. */
class NotOurs extends Error {}

/**
 * Sends a message by mail, with the sheets of the bikes it is about. A mail server cannot be asked whether it has a message: so it is written
 * down that one is handed over before its first byte goes, and one that comes to a stop after that is never sent again by itself.
 */
export async function sendByMail(
  { database, mail, now }: { database: Database; mail: MailMaking | undefined; now: () => Date },
  shopId: string,
  claimed: Claimed,
): Promise<Fate> {
  if (claimed.handedAt !== null) return { state: 'unsure' }
  if (claimed.unwanted) return { state: 'called-off' }
  const facts = await inShop(database, shopId, null, (work) => factsOf(work, claimed))
  if (!facts || !mail) return { state: 'waiting' }
  const { settings, shop, customer, bikes } = facts
  const server = serverOf(settings, mail.secrets)
  if (!server) {
    const said = problems['mail-password-lost']
    await inShop(database, shopId, null, (work) => noteTrouble(work, said))
    return { state: 'waiting', said }
  }
  const { mail: words, home } = reminders[claimed.language]
  const onSheets = claimed.purpose === 'home' ? home.sheets : words.sheets
  const sheets = []
  for (const { label, sheet } of bikes)
    sheets.push({
      name: `${label.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'sheet'}.pdf`,
      pdf: await mail.printer.print(shopId, {
        sheet,
        locale: LOCALE[claimed.language],
        timeZone: shop.timeZone,
        unit: shop.distanceUnit,
        currency: shop.currency,
      }),
    })
  const labels = inWords(
    bikes.map(({ label }) => label),
    claimed.language,
  )
  // Of bikes that are somebody else's meanwhile nothing is said.
  const subject = bikes.length === 0 ? shop.name : fillTemplate(words.subject, { shop: shop.name, bikes: labels })
  const letter = mailOf(settings, {
    reference: referenceOf(shopId, claimed.id),
    to: { name: customer, address: claimed.email ?? '' },
    subject,
    language: claimed.language,
    paragraphs: [claimed.text, ...(sheets.length > 0 ? [onSheets] : [])],
    stop: {
      sentence: words.stop,
      link: stopLink(settings.publicAddress, mail.secrets, { shopId, customerId: claimed.customerId }),
    },
    sheets,
  })
  let fared
  try {
    fared = await handOver(server, letter, () => handing({ database, now }, shopId, claimed))
  } catch (error) {
    if (error instanceof NotOurs) return { state: 'called-off' }
    throw error
  }
  const { fared: how, said, addressRefused } = fared
  await inShop(database, shopId, null, async (work) => {
    if (how === 'taken') await noteTrouble(work, null)
    else if (how !== 'refused') await noteTrouble(work, said)
    if (addressRefused) await refuseAddress(work, claimed.customerId, claimed.email ?? '')
  })
  if (how === 'taken') return { state: 'sent' }
  return { state: how === 'refused' || how === 'unsure' ? how : 'waiting', said }
}

/** Writes down that the server may have it from now on. @throws NotOurs where another took it up, or its customer wants none meanwhile */
async function handing(
  { database, now }: { database: Database; now: () => Date },
  shopId: string,
  { id, tries }: Claimed,
): Promise<void> {
  const [ours] = await inShop(database, shopId, null, (work) =>
    work.select(
      `UPDATE messages SET handed_at = :now, sending_since = :now WHERE id = :id AND tries = :tries AND state = 'sending'
         AND (SELECT opted_out_at IS NULL FROM customers WHERE id = messages.customer_id) RETURNING id`,
      { id, tries, now: now() },
    ),
  )
  if (!ours) throw new NotOurs()
}

/** What a mail is written from, as of now; null where mail is off. */
async function factsOf(work: Work, { customerId, bikeIds, language, purpose }: Claimed): Promise<Facts | null> {
  const settings = await mailSettings(work)
  if (!settings?.isOn) return null
  const { transaction } = work
  const [known] = await work.select<{ name: string }>('SELECT name FROM customers WHERE id = :customerId', {
    customerId,
  })
  // Of one that went to somebody else meanwhile, this customer is told nothing.
  const theirs = await work.select<{ id: string; label: string }>(
    'SELECT id, label FROM bikes WHERE customer_id = :customerId AND id = ANY (ARRAY[:bikeIds]::uuid[]) ORDER BY label, id',
    { customerId, bikeIds: bikeIds.length === 0 ? [null] : bikeIds },
  )
  const bikes = []
  for (const { id, label } of theirs)
    bikes.push({
      label,
      // Who treats it at home gets their own steps.
      sheet: await sheetOf(work, id, purpose === 'home' ? 'at-home' : 'customer', LOCALE[language]),
    })
  return {
    settings,
    shop: (await work.of(SHOPS).findByPk(work.shopId, { transaction }))!,
    customer: known?.name ?? '',
    bikes,
  }
}
