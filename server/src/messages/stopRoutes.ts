import Router from '@koa/router'
import escapeHtml from 'escape-html'
import type { Context } from 'koa'
import { fillTemplate } from '@pelrin/core'
import { reminders, type ReminderLanguage } from '@pelrin/contract/messages'
import { audited, inShop } from '../db/work.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import type { Secrets } from '../secrets.ts'
import { optOut } from './service.ts'
import { stoppedBy, type Stopped } from './stopLink.ts'

interface Asking extends Stopped {
  readonly shop: string
  readonly language: ReminderLanguage
  readonly optedOut: boolean
}

/**
 * The page by which a customer has no more messages, without signing in. Looking at it changes nothing, since mail programs look at every
 * address before its reader does; its button does, and so does a mail program's own.
 */
export function stopRouter({ database }: Serving, secrets: Secrets | undefined): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/stop' })
  const asking = async (token: string): Promise<Asking | null> => {
    const stopped = secrets ? stoppedBy(secrets, token) : null
    if (!stopped) return null
    const [row] = await inShop(database, stopped.shopId, null, (work) =>
      work.select<Omit<Asking, keyof Stopped>>(
        `SELECT s.name AS shop, c.language, c.opted_out_at IS NOT NULL AS "optedOut"
         FROM customers c JOIN shops s ON s.id = c.shop_id WHERE c.id = :customerId AND c.erased_at IS NULL`,
        { customerId: stopped.customerId },
      ),
    )
    return row ? { ...stopped, ...row } : null
  }
  router.get('/:token', async (ctx) => {
    const who = await asking(ctx.params.token ?? '')
    answer(ctx, who, who?.optedOut === true)
  })
  router.post('/:token', async (ctx) => {
    const who = await asking(ctx.params.token ?? '')
    if (who && !who.optedOut)
      await inShop(database, who.shopId, null, async (work) => {
        await optOut(work, who.customerId)
        await audited(work, 'stopped', 'customer', who.customerId)
      })
    answer(ctx, who, true)
  })
  return router
}

function answer(ctx: Context, who: Asking | null, done: boolean): void {
  ctx.status = who ? 200 : 404
  ctx.type = 'text/html; charset=utf-8'
  ctx.set('Cache-Control', 'no-store')
  // Its own button says where it comes from, else it would be taken for another site's; nobody else is told the address.
  ctx.set('Referrer-Policy', 'same-origin')
  ctx.body = pageOf(who, done)
}

const STYLE =
  'body{font:18px/1.5 "Barlow Semi Condensed",sans-serif;color:#23292e;background:#e9e7e1;margin:0;display:grid;place-items:center;min-height:100vh}' +
  'main{background:#fbfaf7;padding:32px;max-width:30em;margin:16px}h1{font-size:1.5em;margin:0 0 .5em}' +
  'button{font:inherit;font-weight:600;min-height:56px;padding:0 24px;border:0;background:#2f5d7c;color:#fff;cursor:pointer}'

function pageOf(who: Asking | null, done: boolean): string {
  const language = who?.language ?? 'en'
  const words = reminders[language].stop
  const say = (text: string): string => escapeHtml(fillTemplate(text, { shop: who?.shop ?? '' }))
  const body =
    who === null
      ? `<p>${say(words.unknown)}</p>`
      : done
        ? `<p role="status">${say(words.done)}</p>`
        : `<h1>${say(words.title)}</h1><p>${say(words.ask)}</p><form method="post"><button>${say(words.go)}</button></form>`
  return (
    `<!doctype html><html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">` +
    `<meta name="robots" content="noindex"><title>${say(words.title)}</title><style>${STYLE}</style></head><body><main>${body}</main></body></html>`
  )
}
