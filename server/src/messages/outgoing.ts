import type { Channel } from '@pelrin/core'
import type { ReminderLanguage } from '@pelrin/contract/messages'

/** A message this server has taken to send it. */
export interface Claimed {
  readonly id: string
  readonly customerId: string
  readonly purpose: 'visit' | 'home'
  readonly channel: Channel
  readonly language: ReminderLanguage
  readonly phone: string | null
  readonly email: string | null
  readonly bikeIds: readonly string[]
  readonly text: string
  /** Which try this is: who took it before has an older one, and may write nothing more of it. */
  readonly tries: number
  /** Since when a mail server may have it. */
  readonly handedAt: Date | null
  /** Whether its customer said meanwhile that they want none. */
  readonly unwanted: boolean
}

/** What became of a message. */
export interface Fate {
  /** Waiting: nobody has it, and it is tried again. Unsure: nobody knows, and it is not. */
  readonly state: 'sent' | 'refused' | 'waiting' | 'called-off' | 'unsure'
  /** What the other side said, in its own words. */
  readonly said?: string | null
}
