import { useEffect, useRef, useState } from 'react'
import type { AskedOfBike, AssumptionOverrides, BikeForParts, Catalogue } from '@pelrin/core'
import type { BikeMatch } from '@pelrin/contract'
import { beside } from './beside.ts'
import type { Matching, PartsAsked } from './parts.worker.ts'

const matching = beside<Matching>(() => new Worker(new URL('./parts.worker.ts', import.meta.url), { type: 'module' }))
/** The catalogue the worker has. */
let told: Catalogue | null = null

/**
 * What fits a bike, matched beside the main thread; the last answer stands until the next is there.
 *
 * @returns null before the first answer
 */
export function usePartsMatch(
  bike: BikeForParts | undefined,
  question: AskedOfBike,
  catalogue: Catalogue | undefined,
  assumptions: AssumptionOverrides,
): BikeMatch | null {
  const key = bike === undefined ? '' : JSON.stringify({ bike, asked: question, assumptions })
  const [match, setMatch] = useState<BikeMatch | null>(null)
  const newest = useRef(key)
  useEffect(() => {
    newest.current = key
    if (key === '' || catalogue === undefined) return
    const worker = matching()
    // In order: what is asked after it is asked of this one.
    if (told !== catalogue) void worker.take(catalogue)
    told = catalogue
    void worker
      .match(JSON.parse(key) as PartsAsked)
      // The core's lists are read only, the contract's are not: what they hold is the same.
      .then((found) => newest.current === key && setMatch(found as unknown as BikeMatch))
  }, [key, catalogue])
  return match
}
