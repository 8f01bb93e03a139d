export declare class Restarts {
  /** Something ended. @returns ms to wait before it is started again; null: it stays down */
  next(now: number): number | null
}
