import type { MouseEvent } from 'react'
import { useSurroundings } from '../../app/surroundings.ts'
import { proving } from '../../api/question.ts'

/** For a link to a file that is the owner's: asks for the password first, where it was not typed lately. A browser shows no refusal of a download. */
export function useOwnersFile(): (event: MouseEvent<HTMLAnchorElement>) => void {
  const { session } = useSurroundings()
  return (event) => {
    const { provedUntil } = session
    if (provedUntil !== null && Date.parse(provedUntil) > Date.now()) return
    event.preventDefault()
    const { href } = event.currentTarget
    void proving.ask().then((proved) => {
      if (proved) window.location.assign(href)
    })
  }
}
