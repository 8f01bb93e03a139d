import { useDeferredValue, useState } from 'react'
import { useNavigate, useParams, useSearchParams } from 'react-router'
import { orderQuantity, PART_KINDS } from '@pelrin/core'
import { CATALOGUE_SORTS, type CatalogueLine } from '@pelrin/contract'
import { useCatalogue } from '../../api/queries.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { useEndless } from '../../pieces/useEndless.ts'
import { useFilters } from '../../pieces/useFilters.ts'
import type { MovementKind } from './Movement.tsx'

export const ROW_PX = 52
const MOST_LINES_OF_AN_ORDER = 60
const partsOf = ({ parts }: { readonly parts: readonly CatalogueLine[] }) => parts

/** What the catalogue lists, which part is chosen, what lies over it, and what its keys do. */
export function useCataloguePlace() {
  const navigate = useNavigate()
  const { id } = useParams()
  const filters = useFilters()
  const [search] = useSearchParams()
  const bikeId = search.get('bike') ?? undefined
  const kind = filters.among('kind', PART_KINDS)
  const low = filters.among('low', ['yes'] as const) === 'yes'
  const sort = filters.among('sort', CATALOGUE_SORTS)
  const catalogue = useCatalogue({ q: useDeferredValue(filters.text.trim()), kind, low, sort })
  const list = useEndless(catalogue, partsOf, ROW_PX)
  const [moving, setMoving] = useState<MovementKind | null>(null)
  const [sheet, setSheet] = useState<'add' | 'table' | 'order' | null>(null)
  const chosenId = id ?? list.rows[0]?.id
  const open = (part: string): void => {
    setMoving(null)
    void navigate({ pathname: `/catalogue/${part}`, search: filters.search }, { replace: true })
  }
  const step = (by: number): void => {
    const at = list.rows.findIndex((part) => part.id === chosenId)
    const next = Math.min(list.rows.length - 1, Math.max(0, at + by))
    const part = list.rows[next]
    if (!part) return
    open(part.id)
    list.show(next)
  }
  useCommands('catalogue', {
    up: () => step(-1),
    down: () => step(1),
    pageUp: () => step(-10),
    pageDown: () => step(10),
    add: () => setSheet('add'),
    received: () => setMoving('received'),
    used: () => setMoving('used'),
    counted: () => setMoving('counted'),
    back: bikeId === undefined ? null : () => navigate(`/bikes/${bikeId}/parts`),
  })
  const lowOnes = list.rows.filter((part) => part.low)
  const wanted = lowOnes.slice(0, MOST_LINES_OF_AN_ORDER).map((part) => ({
    partId: part.id,
    name: `${part.maker} ${part.name}`,
    quantity: orderQuantity(part),
  }))
  return {
    bikeId,
    catalogue,
    list,
    filters,
    kind,
    low,
    sort,
    chosenId,
    open,
    moving,
    setMoving,
    sheet,
    setSheet,
    wanted,
  }
}
export type CatalogueView = ReturnType<typeof useCataloguePlace>
