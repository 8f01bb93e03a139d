/** A PIN as it is typed: nothing typed is none. */
export const pinIn = (typed: string): { pin?: string } => (typed.trim() === '' ? {} : { pin: typed.trim() })
