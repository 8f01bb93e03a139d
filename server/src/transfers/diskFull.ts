/** SQLSTATE of a database whose disk is full. */
const DISK_FULL = '53100'

/** Whether something failed for want of room: the database's disk, or the one files are written to. */
export function diskIsFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false
  const { code, parent, cause } = error as { code?: string; parent?: unknown; cause?: unknown }
  return code === 'ENOSPC' || code === 'EDQUOT' || code === DISK_FULL || diskIsFull(parent) || diskIsFull(cause)
}
