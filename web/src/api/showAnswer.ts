import type { QueryClient, QueryKey } from '@tanstack/react-query'

/**
 * Shows what a write answered. What is being asked for under the same key was asked before the write was done and would put the old
 * back: it is dropped, and asked for again, since it might as well have been newer.
 */
export async function showAnswer(client: QueryClient, queryKey: QueryKey, data: unknown): Promise<void> {
  const one = { queryKey, exact: true }
  const underWay = client.isFetching(one) > 0
  await client.cancelQueries(one)
  client.setQueryData(queryKey, data)
  if (underWay) void client.invalidateQueries(one)
}
