/** Something the person at the keyboard can mend. Its message is said as it is, without a stack trace. */
export class PlainError extends Error {}

/** One line of progress. */
export function say(line: string): void {
  process.stdout.write(`${line}\n`)
}
