import { useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import type { Session } from '@pelrin/contract'
import { keys } from '../../api/queries.ts'

/** Whoever came in by a link is at this device now, and on the stand or at what comes next. */
export function useEnter(to: string): (session: Session) => void {
  const client = useQueryClient()
  const navigate = useNavigate()
  return (session) => {
    // Whoever was here before: nothing of theirs is shown to who comes now.
    client.clear()
    client.setQueryData(keys.session, session)
    void navigate(to, { replace: true })
  }
}
