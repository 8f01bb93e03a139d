import { useQuery } from '@tanstack/react-query'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'

/** The token behind the hash: it goes to the server in the body of a request, and into no address. */
export const tokenInAddress = (): string => window.location.hash.slice(1)

/** What the link in the address opens. */
export function useWelcome(token: string) {
  return useQuery({
    queryKey: [...keys.welcome, token],
    queryFn: ({ signal }) => ask(endpoints.welcome, { body: { token }, signal }),
    retry: false,
    staleTime: Infinity,
    gcTime: 0,
  })
}
