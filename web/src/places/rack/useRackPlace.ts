import { useDeferredValue, useState } from 'react'
import { useNavigate } from 'react-router'
import { RACK_SORTS, RackState, type BikeSummary } from '@pelrin/contract'
import { useRack } from '../../api/queries.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { sortedIn } from '../../pieces/SortHead.tsx'
import { useEndless } from '../../pieces/useEndless.ts'
import { useFilters } from '../../pieces/useFilters.ts'

export const ROW_PX = 48
const DRIVES = ['derailleur', 'hub-gear', 'single-speed'] as const
const bikesOf = ({ bikes }: { readonly bikes: readonly BikeSummary[] }) => bikes

/** What the rack lists, which of it is chosen, and what its keys do. */
export function useRackPlace() {
  const navigate = useNavigate()
  const [chosen, setChosen] = useState(0)
  const filters = useFilters(() => setChosen(0))
  const state = filters.among('state', RackState.options)
  const drive = filters.among('drive', DRIVES)
  const sorted = sortedIn(filters, RACK_SORTS)
  const rack = useRack({ q: useDeferredValue(filters.text.trim()), state, drive, ...sorted })
  const list = useEndless(rack, bikesOf, ROW_PX)
  const putOnStand = usePutOnStand()
  const step = (by: number): void => {
    const next = Math.min(list.rows.length - 1, Math.max(0, chosen + by))
    setChosen(next)
    list.show(next)
  }
  const bike = list.rows[chosen]
  const to = (path: string) => () => void navigate(path)
  useCommands('rack', {
    up: () => step(-1),
    down: () => step(1),
    pageUp: () => step(-12),
    pageDown: () => step(12),
    put: bike ? () => putOnStand(bike.id) : null,
    record: bike ? to(`/bikes/${bike.id}`) : null,
    measure: bike ? to(`/bikes/${bike.id}/measure`) : null,
    tags: to(`/tags?${filters.search}`),
    customers: to('/customers'),
    newBike: to('/new-bike'),
  })
  return { rack, list, filters, state, drive, drives: DRIVES, sorted, chosen, setChosen }
}
export type RackList = ReturnType<typeof useRackPlace>
