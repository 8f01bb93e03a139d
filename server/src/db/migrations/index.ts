import type { Migration } from './migration.ts'
import { foundation } from './0001-foundation.ts'
import { instruments } from './0002-instruments.ts'
import { houseRules } from './0003-house-rules.ts'
import { studies } from './0004-studies.ts'
import { distanceAndForecast } from './0005-distance-and-forecast.ts'
import { rhythm } from './0006-rhythm.ts'
import { parts } from './0007-parts.ts'
import { stock } from './0008-stock.ts'
import { jobs } from './0009-jobs.ts'

/** Every migration, oldest first. A landed migration is never changed; a new one follows it. */
export const migrations: readonly Migration[] = [
  foundation,
  instruments,
  houseRules,
  studies,
  distanceAndForecast,
  rhythm,
  parts,
  stock,
  jobs,
]
