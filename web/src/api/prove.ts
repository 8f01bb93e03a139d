/** Asks whoever is present for their password again; whether they gave it. Set by the dialog that asks, once there is a page to ask on. */
let asks: () => Promise<boolean> = () => Promise.resolve(false)
let asking: Promise<boolean> | null = null

export function onProve(how: () => Promise<boolean>): () => void {
  asks = how
  return () => {
    asks = () => Promise.resolve(false)
  }
}

/** One question at a time, whoever wants to know. */
export function prove(): Promise<boolean> {
  asking ??= asks().finally(() => {
    asking = null
  })
  return asking
}
