import type { entryForm } from '@pelrin/core'
import { numberWanted, textIn } from '../../forms/typed.ts'
import { typedNumber } from '../../messages/typedNumber.ts'

const MOST_SPOTS = 15

/** A study as it is planned. */
export interface TypedStudy {
  title: string
  peopleIds: string[]
  /** How many. */
  spots: string
  repeats: string
  pitches: string
  /** What each spot truly is, apart by blanks. */
  references: string
  referenceU: string
}

/** Spots are lettered: a letter is chalked beside each on the chain or strip. */
export const letterOf = (i: number): string => String.fromCharCode(65 + i)

/** How many spots are meant. */
export const countOf = (spots: string): number => Math.min(MOST_SPOTS, Math.max(0, Math.floor(typedNumber(spots) ?? 0)))

/** What is planned, as it is written. */
export function studyIn(
  { title, peopleIds, spots, repeats, pitches, references, referenceU }: TypedStudy,
  id: string,
  { kind, untitled }: { kind: ReturnType<typeof entryForm>; untitled: string },
) {
  const truths = references.split(/[\s;]+/).filter((one) => one !== '')
  return {
    id,
    title: textIn(title) ?? untitled,
    peopleIds,
    spots: Array.from({ length: countOf(spots) }, (_, i) => {
      const truth = truths[i]
      return { label: letterOf(i), ...(truth === undefined ? {} : { reference: numberWanted(truth) }) }
    }),
    repeats: numberWanted(repeats),
    ...(kind === 'length' ? { pitches: numberWanted(pitches) } : {}),
    referenceU: numberWanted(referenceU),
  }
}
