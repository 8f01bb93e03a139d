import { useEffect, useState } from 'react'

export type ServerState = 'there' | 'away' | 'no-room'

/** How often it is asked, and how long it may take to answer, ms: who stands at a bench knows within five seconds. */
const EVERY_MS = 2_000
const PATIENCE_MS = 2_500

async function asked(): Promise<ServerState> {
  try {
    const response = await fetch('/health/ready', { signal: AbortSignal.timeout(PATIENCE_MS), cache: 'no-store' })
    if (response.ok) return 'there'
    const { status } = (await response.json()) as { status?: string }
    return status === 'no room on the disk' ? 'no-room' : 'away'
  } catch {
    return 'away'
  }
}

/** Whether the server can serve, asked again and again while somebody looks: what is shown is as of now only while it is there. */
export function useServerState(): ServerState {
  const [state, setState] = useState<ServerState>('there')
  useEffect(() => {
    let over = false
    let timer: ReturnType<typeof setTimeout> | undefined
    const look = async (): Promise<void> => {
      if (document.visibilityState === 'visible') {
        const now = await asked()
        if (!over) setState(now)
      }
      if (!over) timer = setTimeout(() => void look(), EVERY_MS)
    }
    void look()
    return () => {
      over = true
      clearTimeout(timer)
    }
  }, [])
  return state
}
