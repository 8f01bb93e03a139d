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
import { chains } from './0010-chains.ts'
import { mends } from './0012-mends.ts'
import { jobSchools } from './0013-job-schools.ts'
import { care } from './0015-care.ts'
import { pot } from './0016-pot.ts'
import { diary } from './0017-diary.ts'
import { messages } from './0018-messages.ts'
import { eventDates } from './0020-event-dates.ts'
import { otherWearDue } from './0019-other-wear-due.ts'
import { presence } from './0021-presence.ts'
import { standing } from './0022-standing.ts'
import { schools } from './0023-schools.ts'
import { unsaidWear } from './0024-unsaid-wear.ts'
import { ownShop } from './0025-own-shop.ts'
import { customers } from './0026-customers.ts'
import { visitsChanged } from './0027-visits-changed.ts'
import { apiTokens } from './0028-api-tokens.ts'
import { mail } from './0029-mail.ts'
import { bikeTwins } from './0030-bike-twins.ts'
import { indoors } from './0031-indoors.ts'
import { addedBack } from './0035-added-back.ts'
import { washes } from './0036-washes.ts'
import { sizing } from './0034-sizing.ts'
import { components } from './0033-components.ts'
import { joining } from './0032-joining.ts'
import { gone } from './0014-gone.ts'
import { otherWear } from './0011-other-wear.ts'

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
  chains,
  otherWear,
  mends,
  jobSchools,
  gone,
  care,
  pot,
  diary,
  messages,
  otherWearDue,
  eventDates,
  presence,
  standing,
  schools,
  unsaidWear,
  ownShop,
  customers,
  visitsChanged,
  apiTokens,
  mail,
  bikeTwins,
  indoors,
  joining,
  components,
  sizing,
  addedBack,
  washes,
]
