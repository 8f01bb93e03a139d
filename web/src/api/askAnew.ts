import type { QueryClient } from '@tanstack/react-query'

/**
 * Asks for everything shown anew, once something changed it. What is being asked for the first time is asked again too: its answer
 * may have been on its way before the change.
 */
export async function askAnew(client: QueryClient): Promise<void> {
  await client.cancelQueries({ predicate: ({ state }) => state.data === undefined })
  await client.invalidateQueries()
}
