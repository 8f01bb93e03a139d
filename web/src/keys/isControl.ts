/** Whether Enter or Space on this is its own: it presses a button, follows a link, is typed. A line of a list is its place's. */
export const isControl = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, input, textarea, select') !== null

/** The same of what is pressed, not typed into: in a field Enter goes on to the next. */
export const isPressed = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('button, a, select, [role="option"]') !== null
