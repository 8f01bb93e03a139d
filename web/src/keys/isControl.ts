/** Whether a key on this is its own: Enter and Space press buttons, follow links and go into fields. */
export const isControl = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, input, textarea, select, [role="option"]') !== null

/** The same of what is pressed, not typed into: in a field Enter goes on to the next. */
export const isPressed = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, select, [role="option"]') !== null

/** The same of what a key on it does something of its own with, and not of a line of a list, which its place acts for. */
export const isButton = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, input, textarea, select') !== null
