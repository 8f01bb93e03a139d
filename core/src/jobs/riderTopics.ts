import type { VerdictWord } from '../limits/verdictTypes.ts'
import type { Complaint } from './complaints.ts'

/** What a rider is told of a worn chain, one sentence each. */
export const RIDER_TOPICS = ['stretch', 'uneven', 'shifting', 'skipping', 'noise', 'power', 'cost'] as const
export type RiderTopic = (typeof RIDER_TOPICS)[number]

const BY_COMPLAINT: Readonly<Record<Complaint, RiderTopic>> = {
  'poor-shifting': 'shifting',
  skipping: 'skipping',
  noise: 'noise',
  squeak: 'noise',
  broken: 'skipping',
  wash: 'uneven',
  service: 'uneven',
}

/**
 * What is said to this rider, in three sentences: what wear is, what it has to do with what they came for, and what waiting costs them.
 *
 * @param complaint what they came for; null where nobody wrote it
 * @param word how the chain stands
 */
export const riderTopics = (complaint: Complaint | null, word: VerdictWord): readonly RiderTopic[] => [
  'stretch',
  complaint === null ? 'uneven' : BY_COMPLAINT[complaint],
  word === 'change' || word === 'closing-in' ? 'cost' : 'power',
]
