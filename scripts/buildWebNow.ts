import { join } from 'node:path'
import { buildWeb } from './buildWeb.ts'

/** Builds the web application unless it is there; a process of its own, since building takes three times the memory of serving. */
await buildWeb(join(import.meta.dirname, '..'))
