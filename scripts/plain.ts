/** Something the person at the keyboard can mend. Its message is said as it is, without a stack trace. */
export class PlainError extends Error {}

/** One line of progress. */
export function say(line: string): void {
  process.stdout.write(`${line}\n`)
}

/** What a system refused, in words. */
const REFUSED: Readonly<Record<string, string>> = {
  ENOSPC: 'The disk is full. Make room, then start again.',
  EDQUOT: 'The disk is full for this account. Make room, then start again.',
  EACCES: 'is not readable or writable for this account. Give it the right, or choose another folder with --data.',
  EPERM: 'is not readable or writable for this account. Give it the right, or choose another folder with --data.',
  EROFS: 'lies on a disk that cannot be written. Choose another folder with --data.',
  ENOENT: 'is gone. Start again; should it stay, choose another folder with --data.',
}

/** What to say of something that ended a start: a sentence where somebody can mend it, else where it happened. */
export function sentenceOf(error: unknown): string {
  if (error instanceof PlainError) return error.message
  if (!(error instanceof Error)) return String(error)
  const { code = '', path = '' } = error as NodeJS.ErrnoException
  const refused = REFUSED[code]
  if (refused === undefined) return error.stack ?? error.message
  return refused.startsWith('The') ? refused : `${path === '' ? 'A file Pelrin needs' : path} ${refused}`
}
