import { useInfiniteQuery } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { useNavigate } from 'react-router'
import { CUSTOMER_SORTS, endpoints, type ListedCustomer } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { sortedIn } from '../../pieces/SortHead.tsx'
import { useEndless } from '../../pieces/useEndless.ts'
import { useFilters } from '../../pieces/useFilters.ts'

export const ROW_PX = 52
const customersOf = ({ customers }: { readonly customers: readonly ListedCustomer[] }) => customers

/** Which customers are listed, which is chosen, and what the keys do. */
export function useCustomersPlace() {
  const navigate = useNavigate()
  const [chosen, setChosen] = useState(0)
  const filters = useFilters(() => setChosen(0))
  const sorted = sortedIn(filters, CUSTOMER_SORTS)
  const q = useDeferredValue(filters.text.trim())
  const customers = useInfiniteQuery({
    queryKey: ['customers', 'list', q, sorted],
    queryFn: ({ pageParam, signal }) =>
      ask(endpoints.customerList, {
        query: { q: q === '' ? undefined : q, sort: sorted.sort, way: sorted.way, cursor: pageParam },
        signal,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  })
  const list = useEndless(customers, customersOf, ROW_PX)
  const step = (by: number): void => {
    const next = Math.min(list.rows.length - 1, Math.max(0, chosen + by))
    setChosen(next)
    list.show(next)
  }
  const customer = list.rows[chosen]
  useCommands('customers', {
    up: () => step(-1),
    down: () => step(1),
    pageUp: () => step(-12),
    pageDown: () => step(12),
    open: customer ? () => void navigate(`/customers/${customer.id}`) : null,
    newBike: () => void navigate('/new-bike'),
    back: () => void navigate('/rack'),
  })
  return { customers, list, filters, sorted, chosen, setChosen }
}
export type CustomersList = ReturnType<typeof useCustomersPlace>
