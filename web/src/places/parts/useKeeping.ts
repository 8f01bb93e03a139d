import { v7 } from 'uuid'
import type { WantedPart } from '@pelrin/core'
import { endpoints, type KeptParts } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'

/** Keeps a bike's parts and lets them go; says in words what stood in the way. */
export function useKeeping(bikeId: string) {
  const { wrong, busy, write } = useWrite({
    access: endpoints.keepParts.access,
    stale: [keys.parts(bikeId)],
    later: [keys.catalogue],
  })
  return {
    wrong: wrong?.sentence ?? null,
    busy,
    keep: (pitches: number | null, lines: readonly WantedPart[]) =>
      write(() =>
        ask(endpoints.keepParts, {
          params: { id: bikeId },
          key: v7(),
          body: {
            id: v7(),
            pitches,
            lines: lines.map(({ partId, quantity, included }) => ({ id: v7(), partId, quantity, included })),
          },
        }),
      ),
    letGo: ({ id, version }: KeptParts) => write(() => ask(endpoints.dropParts, { params: { id }, version })),
  }
}
