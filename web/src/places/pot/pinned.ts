import dayjs from 'dayjs'
import type { ChainChange } from './ChosenChain.tsx'

export const MINUTE = 60_000

/** A chain goes in no sooner than this: on a whole minute, or whenever it suits where that has passed. */
export const notBefore = (at: number): ChainChange => ({
  notBefore: at <= Date.now() ? null : new Date(Math.round(at / MINUTE) * MINUTE).toISOString(),
})

/**
 * From when a chain is moved sooner or later: what it is pinned to, else what it is planned for, else now.
 *
 * @param plannedMinute when it goes in by the plan, minutes from `from`
 */
export const pinnedAt = ({
  pinned,
  plannedMinute = 0,
  from,
}: {
  readonly pinned: string | null
  readonly plannedMinute: number | undefined
  readonly from: number
}): dayjs.Dayjs => (pinned === null ? dayjs(from).add(plannedMinute, 'minute') : dayjs(pinned))
