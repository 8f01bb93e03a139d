// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type Message, type SentMessages } from '@pelrin/contract'
import { Answers, fill, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { MessagesPlace } from './MessagesPlace.tsx'
import { until } from '../../testing/until.ts'

const message = (id: string, state: Message['state'], more: Partial<Message> = {}): Message => ({
  id,
  customer: { id: `customer ${id}`, name: `Customer ${id}` },
  purpose: 'visit',
  visitDay: '2026-11-30',
  language: 'en',
  channel: 'text',
  phone: '+44 0',
  email: null,
  said: null,
  text: `About ${id}.`,
  state,
  tries: 1,
  sendAfter: '2026-11-26T18:00:00.000Z',
  sentAt: state === 'waiting' ? null : '2026-11-26T09:30:00.000Z',
  madeAt: '2026-11-26T09:00:00.000Z',
  person: 'Tove Sandell',
  ...more,
})
const outbox = (messages: Message[], more: Partial<SentMessages> = {}): SentMessages => ({
  sending: { text: true, mail: false },
  templates: [{ language: 'en', version: 3, text: 'Hello {{name}}, your {{bikes}} would like {{day}}. {{shop}}' }],
  messages,
  replies: [],
  ...more,
})

let server: Answers
beforeEach(() => {
  server = new Answers()
})
afterEach(() => vi.unstubAllGlobals())
const open = async (shown: SentMessages) => {
  server.to(endpoints.outbox, shown)
  const app = inApp(<MessagesPlace />, { at: '/messages' })
  await screen.findByRole('heading', { name: 'Messages' })
  return app
}
const rows = () => within(screen.getByRole('list', { name: 'Outbox' })).getAllByRole('listitem')

describe('messages', () => {
  it('say of each what became of it, and how often it was tried', async () => {
    await open(
      outbox([
        message('a', 'delivered'),
        message('b', 'refused', { tries: 3 }),
        message('c', 'waiting'),
        message('d', 'failed'),
      ]),
    )
    expect(
      rows().map(({ textContent }) => /delivered|refused3 tries|waits until 18:00|could not/.exec(textContent)?.[0]),
    ).toEqual(['delivered', 'refused3 tries', 'waits until 18:00', 'could not'])
  })
  it('that wait can be called off, those that went cannot', async () => {
    const { user, told } = await open(outbox([message('a', 'sent'), message('b', 'waiting')]))
    expect(screen.getAllByRole('button', { name: /^Call off/ })).toHaveLength(1)
    server.to(endpoints.callOffReminder, outbox([message('a', 'sent'), message('b', 'called-off')]))
    await user.click(screen.getByRole('button', { name: 'Call off: Customer b' }))
    await until(() => expect(rows()[1]?.textContent).toContain('called off'))
    expect(server.of(endpoints.callOffReminder)[0]?.params).toEqual({ id: 'b' })
    expect(told).toEqual(['called off'])
  })
  it('that went out meanwhile are shown as they are, with why they were not called off', async () => {
    const { user } = await open(outbox([message('b', 'waiting')]))
    server.refuse(endpoints.callOffReminder, 409, 'message-gone').to(endpoints.outbox, outbox([message('b', 'sent')]))
    await user.click(screen.getByRole('button', { name: 'Call off: Customer b' }))
    expect((await screen.findByRole('alert')).textContent).toBe(sentenceOf('message-gone'))
    await until(() => expect(rows()[0]?.textContent).toContain('sent 09:30'))
  })
  it('by mail say what the mail server said; one nobody knows of is sent again, or came back, by hand', async () => {
    const mail = { channel: 'mail', phone: null, email: 'mara@quay.test' } as const
    const unsure = message('a', 'unsure', mail)
    const { user, told } = await open(
      outbox([unsure, message('b', 'refused', { ...mail, said: '550 No such mailbox here' }), message('c', 'sent')]),
    )
    expect(rows().map(({ textContent }) => textContent.includes('e-mail to mara@quay.test'))).toEqual([
      true,
      true,
      false,
    ])
    expect(rows()[0]!.textContent).toContain('Ask before you send it again')
    expect(rows()[1]!.textContent).toContain('“550 No such mailbox here”')
    server.to(endpoints.sendAgain, outbox([message('a', 'waiting', mail)]))
    await user.click(screen.getByRole('button', { name: 'Send again: Customer a' }))
    await until(() => expect(told).toEqual(['It goes out once more.']))
    expect(server.of(endpoints.sendAgain)[0]?.params).toEqual({ id: 'a' })
  })
  it('say that nothing goes out where nothing is set up, and lead there', async () => {
    await open(outbox([], { sending: { text: false, mail: false } }))
    expect(screen.getByText(/Nothing goes out yet/)).toBeTruthy()
    expect(screen.getByRole('link', { name: 'Set up e-mail' }).getAttribute('href')).toBe('/house-rules?tab=mail')
    expect(screen.getByText(/No reminder was written yet/)).toBeTruthy()
  })
  it('have a wording with known fields only: another is named, and cannot be kept', async () => {
    const { user } = await open(outbox([]))
    const wording = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Wording, English' })
    const was = wording.value
    const keep = screen.getByRole('button', { name: 'Say it so from now on' })
    expect(keep).toHaveProperty('disabled', true)
    fill(wording, `${was} {{bikename}}`)
    expect(wording.getAttribute('aria-invalid')).toBe('true')
    expect(keep).toHaveProperty('disabled', true)
    fill(wording, `${was}!`)
    expect(wording.getAttribute('aria-invalid')).toBe('false')
    server.to(endpoints.changeTemplate, outbox([]))
    await user.click(keep)
    await until(() => expect(server.of(endpoints.changeTemplate)).toHaveLength(1))
    expect(server.of(endpoints.changeTemplate)[0]?.headers['If-Match']).toBe('"3"')
  })
  it('lead back to the diary by Escape', async () => {
    const { user, at } = await open(outbox([]))
    await user.keyboard('{Escape}')
    expect(at()).toBe('/diary')
  })
})
