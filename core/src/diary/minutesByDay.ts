/** When a door is open on a weekday, by the clock, HH:mm; null: not at all. */
export type OpeningHours = { readonly from: string; readonly to: string } | null

const hoursOf = (day: OpeningHours): number => {
  if (day === null) return 0
  const minutes = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3, 5))
  return minutes(day.to) - minutes(day.from)
}

/**
 * What each weekday takes of work: a whole day, that is the longest, takes all of it, a shorter one its share, a closed one none.
 *
 * @param opening Monday to Sunday
 * @param dayMinutes work a whole day takes, minutes
 * @returns values of the house rules by key, `diary.minutes1` for Monday to `diary.minutes7`, whole minutes
 */
export function minutesByDay(opening: readonly OpeningHours[], dayMinutes: number): Record<string, number> {
  const longest = Math.max(...opening.map(hoursOf))
  return Object.fromEntries(
    opening.map((day, i) => [
      `diary.minutes${i + 1}`,
      longest > 0 ? Math.round((dayMinutes * hoursOf(day)) / longest) : 0,
    ]),
  )
}

/** What of a shop decides how much work a day takes: when its door is open, and at how many stands work is done. */
export interface Working {
  /** Monday to Sunday. */
  readonly opening: readonly OpeningHours[]
  readonly stands: number
}

/**
 * What each weekday takes of work once the shop is open otherwise or has another number of stands: what an open hour at a stand took, it takes still.
 * A day that was shut takes what an hour of the fullest day does.
 *
 * @param minutes what each weekday takes so far, Monday to Sunday
 * @param most more than this a day never takes
 * @returns values of the house rules by key, as {@link minutesByDay}
 */
export function minutesAfter(
  before: Working,
  after: Working,
  minutes: readonly number[],
  most: number,
): Record<string, number> {
  const anHour = minutes.map((one, i) => {
    const open = hoursOf(before.opening[i] ?? null)
    return open > 0 ? one / open : null
  })
  const fullest = Math.max(0, ...anHour.map((one) => one ?? 0))
  const share = after.stands / before.stands
  return Object.fromEntries(
    after.opening.map((day, i) => [
      `diary.minutes${i + 1}`,
      Math.min(most, Math.round((anHour[i] ?? fullest) * hoursOf(day) * share)),
    ]),
  )
}
