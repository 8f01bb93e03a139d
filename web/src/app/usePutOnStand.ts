import { useQueryClient } from '@tanstack/react-query'
import { useCallback } from 'react'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { keys } from '../api/queries.ts'
import { showAnswer } from '../api/showAnswer.ts'

/** Puts a bike on this device's stand: shown at once, written as soon as the server has it. */
export function usePutOnStand(): (bikeId: string) => void {
  const client = useQueryClient()
  const navigate = useNavigate()
  return useCallback(
    (bikeId) => {
      // At once: the next key is meant for this bike, not for the one before it.
      void navigate(`/?bike=${bikeId}`, { flushSync: true })
      ask(endpoints.putOnStand, { body: { visitId: v7(), bikeId }, key: v7() })
        .then((lineUp) => showAnswer(client, keys.lineUp, lineUp))
        // The bike is shown all the same; the line-up asks again by itself.
        .catch(() => client.invalidateQueries({ queryKey: keys.lineUp }))
    },
    [client, navigate],
  )
}
