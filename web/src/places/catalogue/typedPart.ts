import { fieldsOf, PART_KINDS, type PartKind } from '@pelrin/core'
import type { PartCells } from '@pelrin/contract'

/** What most parts of a kind are: to be corrected where this one differs. */
const BEGUN: Readonly<Partial<Record<PartKind, PartCells>>> = {
  chain: { profile: 'plain', roller: 'standard', coating: 'plain', joints: 'link', inBox: '116', jointInBox: 'link' },
  link: { profile: 'plain', roller: 'standard', reuse: 'once', openedBy: 'pliers' },
  pin: { profile: 'plain', roller: 'standard', reuse: 'once', openedBy: 'never' },
  clip: { profile: 'plain', roller: 'standard', reuse: 'firm', openedBy: 'hand', speeds: '1' },
  ring: { width: '3/32' },
  derailleur: { pulleys: '11 11' },
}

const EMPTY: PartCells = Object.fromEntries(PART_KINDS.flatMap(fieldsOf).map(({ key }) => [key, '']))

/** A new part of a kind, as its form begins. */
export const begunPart = (kind: PartKind): PartCells => ({ ...EMPTY, ...BEGUN[kind] })

/** A part as its form shows it. */
export const typedPart = (cells: PartCells): PartCells => ({ ...EMPTY, ...cells })

/** What is said of a part of a kind: nothing of what only other kinds have. */
export const cellsIn = (kind: PartKind, typed: PartCells): PartCells => ({
  ...Object.fromEntries(fieldsOf(kind).flatMap(({ key }) => (typed[key] ? [[key, typed[key]]] : []))),
  kind,
})
