import { useState } from 'react'
import * as v from 'valibot'
import { POSITIONS } from '@pelrin/core'
import { BREAK_CAUSES } from '@pelrin/contract'
import { drafts } from '../../drafts/drafts.ts'

/** Pitches that are looked over at once. */
export const SECTION = 14

const Draft = v.object({
  pitches: v.string(),
  broken: v.picklist(['inner', 'outer']),
  damaged: v.array(v.number()),
  /** How many pitches were looked over. */
  seen: v.number(),
  /** Which of the ways is taken. */
  way: v.nullable(v.string()),
  cause: v.nullable(v.picklist(BREAK_CAUSES)),
  /** How the bike stands or lies. */
  position: v.optional(v.picklist(POSITIONS), 'upright'),
  /** For the way home only. */
  roadside: v.optional(v.boolean(), false),
  /** What the rider is told, where somebody changed it. */
  advised: v.nullable(v.string()),
})
export type MendDraft = v.InferOutput<typeof Draft>

/** What was found so far, kept on this device over a reload and a dead battery. */
export function useMendDraft(chainId: string, pitches: number | null) {
  const key = `mend ${chainId}`
  const [draft, setDraft] = useState<MendDraft>(
    () => drafts.read(key, Draft) ?? { ...EMPTY, pitches: pitches?.toString() ?? '' },
  )
  return {
    draft,
    change: (part: Partial<MendDraft>) =>
      setDraft((before) => {
        const next = { ...before, ...part }
        drafts.put(key, next)
        return next
      }),
    /** Begins anew, with the count the chain has by now. */
    anew: (count: number | null) => {
      drafts.remove(key)
      setDraft({ ...EMPTY, pitches: count?.toString() ?? '' })
    },
  }
}

const EMPTY: MendDraft = {
  pitches: '',
  broken: 'outer',
  damaged: [0],
  seen: 0,
  way: null,
  cause: null,
  position: 'upright',
  roadside: false,
  advised: null,
}
