import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import type { ShopJobs } from '../queue/queue.ts'
import { composeReminders } from './compose.ts'
import { callOff, cameBack, changeTemplate, checkTemplate, sendAgain, sendReminders, setMessaging } from './service.ts'
import { sendingOf, sentMessages } from './store.ts'

/** @param messaging whether there is a gateway for text messages, and what sends what is written */
export function messagesRoutes(
  serving: Serving,
  messaging: { gateway: boolean; jobs: Pick<ShopJobs, 'sendMessages'> },
): void {
  serving.serve(endpoints.outbox, ({ work }) => sentMessages(work, messaging.gateway))
  serving.serve(endpoints.previewReminders, async ({ work, session, body: { visits, template } }) => {
    if (template) checkTemplate(template.text, 'template.text')
    const sending = await sendingOf(work, messaging.gateway)
    const composed = await composeReminders(work, session.shop, visits, sending, template)
    return { previews: composed.map(({ customerId: _, ...preview }) => preview) }
  })
  serving.serve(endpoints.sendReminders, async ({ work, session, body }) =>
    sendReminders(work, session.shop, body.visits, {
      sending: await sendingOf(work, messaging.gateway),
      jobs: messaging.jobs,
    }),
  )
  serving.serve(endpoints.callOffReminder, async ({ work, params }) => {
    await callOff(work, params.id)
    return sentMessages(work, messaging.gateway)
  })
  serving.serve(endpoints.sendAgain, async ({ work, params }) => {
    await sendAgain(work, params.id, messaging.jobs)
    return sentMessages(work, messaging.gateway)
  })
  serving.serve(endpoints.cameBack, async ({ work, params }) => {
    await cameBack(work, params.id)
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
