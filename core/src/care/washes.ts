import type { Assumptions } from '../assumptions.ts'
import { dayAfter } from '../diary/planVisits.ts'
import { wantsDrying, type Cleaning } from './cleaning.ts'

/** Something that happened to a chain, as far as a wash goes. Newest first. */
interface Washed {
  readonly kind: 'treated' | 'wash' | 'squeak'
  readonly cleaning: Cleaning | null
  /** YYYY-MM-DD. */
  readonly on: string
}

/**
 * The day a drive is washed next: so many days after it was washed last, by itself or before a treatment, or after its chain came on.
 *
 * @param ownDays the bike's own rhythm; 0 for none, null as the house has it
 * @returns null where it is washed when it is dirty, and not by days
 */
export function nextWashOn(
  {
    events,
    fittedOn,
    ownDays,
  }: { readonly events: readonly Washed[]; readonly fittedOn: string; readonly ownDays: number | null },
  { washDays }: Pick<Assumptions['care'], 'washDays'>,
): string | null {
  const every = ownDays ?? washDays
  if (every === 0) return null
  const last = events.find(
    ({ kind, cleaning }) => kind === 'wash' || (cleaning !== null && wantsDrying({ cleaning, wet: false })),
  )
  return dayAfter(last?.on ?? fittedOn, every)
}
