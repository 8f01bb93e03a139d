import { endpoints } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import type { Secrets } from '../secrets.ts'
import { changeMail, tryMail } from './service.ts'
import { mailShown } from './store.ts'

/**
 * @param secrets what the mail server's password is sealed by; undefined where whoever runs this set no key
 * @param changed what waits may go now, in the transaction that writes the settings
 */
export function mailRoutes(
  serving: Serving,
  secrets: Secrets | undefined,
  changed: (work: Work) => Promise<void>,
): void {
  serving.serve(endpoints.mail, ({ work }) => mailShown(work))
  serving.serve(endpoints.changeMail, async ({ work, version, body }) => {
    const shown = await changeMail(work, version, body, secrets)
    if (shown.on) await changed(work)
    return shown
  })
  serving.serveWaiting(endpoints.tryMail, ({ session, author, body }) =>
    tryMail({ database: serving.database, secrets }, session.shop, author, body.to),
  )
}
