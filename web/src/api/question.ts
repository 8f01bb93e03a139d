/** Something whoever is present is asked before a request goes on, by a dialog, once there is a page to ask on. One at a time, whoever wants to know. */
export class Question {
  private how: (() => Promise<boolean>) | null = null
  private asking: Promise<boolean> | null = null

  /** Says how it is asked. @returns takes that back */
  readonly onAsk = (how: () => Promise<boolean>): (() => void) => {
    this.how = how
    return () => {
      this.how = null
    }
  }

  /** Whether there is a page to ask on. */
  readonly canAsk = (): boolean => this.how !== null

  /** @returns whether they gave what was asked for */
  readonly ask = (): Promise<boolean> => {
    if (this.how === null) return Promise.resolve(false)
    this.asking ??= this.how().finally(() => {
      this.asking = null
    })
    return this.asking
  }
}

/** Whoever is present types their password again, for what is the owner's. */
export const proving = new Question()

/** Somebody signs in over what is half typed, since the session here has ended. */
export const signingIn = new Question()
/** They were asked and would not, for now: what is only looked at does not ask again, a write does. */
let declined = false

/** @param insists what is asked for is no mere look */
export async function signInAgain(insists: boolean): Promise<boolean> {
  if (!signingIn.canAsk() || (declined && !insists)) return false
  const signedIn = await signingIn.ask()
  declined = !signedIn
  return signedIn
}
