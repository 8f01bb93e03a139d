import { useQuery } from '@tanstack/react-query'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'

export const useCustomer = (id: string) =>
  useQuery({
    queryKey: keys.customer(id),
    queryFn: ({ signal }) => ask(endpoints.customer, { params: { id }, signal }),
    staleTime: 0,
  })

/** What anything said of a customer makes stale: them, and every list that names them. */
export const OF_CUSTOMERS = {
  stale: [['customer']],
  later: [['bike'], ['stand'], ['rack'], ['diary'], ['customers']],
} as const
