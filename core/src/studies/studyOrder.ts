/** One measurement of a study to be made: which spot, for the how-manieth time. Both from 0. */
export interface StudyTurn {
  readonly spot: number
  readonly repeat: number
}

/**
 * The order one person measures in: every spot once, then again, each time beginning elsewhere and the other way
 * round, so that nobody remembers what a spot showed. The same for the same person every time.
 *
 * @param person number of the person in the study, from 0
 */
export function studyOrder({
  spots,
  repeats,
  person,
}: {
  spots: number
  repeats: number
  person: number
}): StudyTurn[] {
  return Array.from({ length: repeats }, (_, repeat) => {
    const start = (person * 2 + repeat * 3) % spots
    const backwards = (person + repeat) % 2 === 1
    return Array.from({ length: spots }, (__, i) => ({
      spot: (start + (backwards ? spots - i : i)) % spots,
      repeat,
    }))
  }).flat()
}
