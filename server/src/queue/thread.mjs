// What a worker thread begins with: the loader of TypeScript is not passed on to threads, so each takes it on itself.
import { register } from 'tsx/esm/api'

register()

/** Runs the default export of a module. */
export default async ({ module, asked }) => (await import(module)).default(asked)
