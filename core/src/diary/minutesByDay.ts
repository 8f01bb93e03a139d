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
