import { describe, expect, it } from 'vitest'
import { reachOf, type Reachable } from './reach.ts'

const mara: Reachable = { phone: '0555 0101', email: 'mara@quay.test', emailRefused: null, reachedBy: null }
const both = { text: true, mail: true }

describe('by what a customer is written to', () => {
  it('is as they asked, and by mail for who said nothing', () => {
    expect(reachOf(mara, both)).toEqual({ channel: 'mail' })
    expect(reachOf({ ...mara, reachedBy: 'text' }, both)).toEqual({ channel: 'text' })
    expect(reachOf({ ...mara, email: null }, both)).toEqual({ channel: 'text' })
    expect(reachOf(mara, { text: true, mail: false })).toEqual({ channel: 'text' })
  })
  it('is never the other of what they asked for', () => {
    expect(reachOf({ ...mara, reachedBy: 'mail', email: null }, both)).toEqual({ problem: 'no-mail' })
    expect(reachOf({ ...mara, reachedBy: 'text', phone: null }, both)).toEqual({ problem: 'no-phone' })
    expect(reachOf({ ...mara, reachedBy: 'mail' }, { text: true, mail: false })).toEqual({ problem: 'no-mail-service' })
    expect(reachOf({ ...mara, reachedBy: 'text' }, { text: false, mail: true })).toEqual({ problem: 'no-gateway' })
  })
  it('is no mail to an address that came back, until it is another', () => {
    const back = { ...mara, emailRefused: mara.email }
    expect(reachOf(back, both)).toEqual({ channel: 'text' })
    expect(reachOf({ ...back, phone: null }, both)).toEqual({ problem: 'mail-refused' })
    expect(reachOf({ ...back, email: 'mara@harbour.test' }, both)).toEqual({ channel: 'mail' })
  })
  it('says what is missing of what the shop has', () => {
    const nothing = { ...mara, phone: null, email: null }
    expect(reachOf(nothing, both)).toEqual({ problem: 'no-way' })
    expect(reachOf(nothing, { text: true, mail: false })).toEqual({ problem: 'no-phone' })
    expect(reachOf(nothing, { text: false, mail: true })).toEqual({ problem: 'no-mail' })
  })
})
