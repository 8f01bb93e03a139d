import type { MailSettings } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { MAIL_SETTINGS, type MailSettingsRow } from './models.ts'

/** What nobody has set yet. */
const UNSET: MailSettings = {
  version: 0,
  on: false,
  host: '',
  port: 587,
  security: 'starttls',
  userName: null,
  hasPassword: false,
  fromName: '',
  fromAddress: '',
  publicAddress: '',
  trouble: null,
}

/** By which server the shop's mail goes, without the secret. */
export const mailShown = async (work: Work): Promise<MailSettings> => asShown(await mailSettings(work))

/** The settings as they are kept; null where there are none. */
export const mailSettings = (work: Work): Promise<MailSettingsRow | null> =>
  work.of(MAIL_SETTINGS).findOne({ transaction: work.transaction })

/** Whether mail goes out at all. */
export const mailIsOn = async (work: Work): Promise<boolean> => (await mailSettings(work))?.isOn === true

export const asShown = (row: MailSettingsRow | null): MailSettings =>
  row === null
    ? UNSET
    : {
        version: row.version,
        on: row.isOn,
        host: row.host,
        port: row.port,
        security: row.security,
        userName: row.userName,
        hasPassword: row.passwordSealed !== null,
        fromName: row.fromName,
        fromAddress: row.fromAddress,
        publicAddress: row.publicAddress,
        trouble:
          row.trouble === null || row.troubleAt === null
            ? null
            : { said: row.trouble, at: row.troubleAt.toISOString() },
      }

/** Writes down what was said when mail did not go; null once it does. */
export async function noteTrouble(work: Work, said: string | null): Promise<void> {
  await work
    .of(MAIL_SETTINGS)
    .update({ trouble: said, troubleAt: said === null ? null : work.now }, { where: {}, transaction: work.transaction })
}
