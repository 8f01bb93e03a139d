import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { composeReminders } from './compose.ts'
import { callOff, changeTemplate, checkTemplate, sendReminders, setMessaging } from './service.ts'
import { sentMessages } from './store.ts'

/** @param messaging whether there is a gateway, and what sends by it */
export function messagesRoutes(
  serving: Serving,
  messaging: { gateway: boolean; jobs: Pick<ShopJobs, 'sendMessages'> },
): void {
  serving.serve(endpoints.outbox, ({ work }) => sentMessages(work, messaging.gateway))
  serving.serve(endpoints.previewReminders, async ({ work, session, body: { visits, template } }) => {
    if (template) checkTemplate(template.text, 'template.text')
    const composed = await composeReminders(work, session.shop, visits, template)
    return { previews: composed.map(({ customerId: _, ...preview }) => preview) }
  })
  serving.serve(endpoints.sendReminders, ({ work, session, body }) =>
    sendReminders(work, session.shop, body.visits, messaging),
  )
  serving.serve(endpoints.callOffReminder, async ({ work, params }) => {
    await callOff(work, params.id)
    return sentMessages(work, messaging.gateway)
  })
  serving.serve(endpoints.changeTemplate, async ({ work, params, version, body }) => {
    await changeTemplate(work, { language: params.id, version, text: body.text })
    return sentMessages(work, messaging.gateway)
  })
  serving.serve(endpoints.setMessaging, ({ work, params, version, body }) =>
    setMessaging(work, params.id, version, body),
  )
}
