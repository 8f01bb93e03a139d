import { accessEndpoints } from './access.ts'
import { backupsEndpoints } from './backups.ts'
import { bikesEndpoints } from './bikes.ts'
import { careEndpoints } from './care.ts'
import { catalogueEndpoints } from './catalogue.ts'
import { chainsEndpoints } from './chains.ts'
import { componentsEndpoints } from './components.ts'
import { customersEndpoints } from './customers.ts'
import { diaryEndpoints } from './diary.ts'
import { distanceEndpoints } from './distance.ts'
import { forecastEndpoints } from './forecast.ts'
import { gaugeEndpoints } from './gauge.ts'
import { importsEndpoints } from './imports.ts'
import { instrumentsEndpoints } from './instruments.ts'
import { jobsEndpoints } from './jobs.ts'
import { looksEndpoints } from './looks.ts'
import { limitsEndpoints } from './limits.ts'
import { mendsEndpoints } from './mends.ts'
import { newBikeEndpoints } from './newBike.ts'
import { ordersEndpoints } from './orders.ts'
import { otherWearEndpoints } from './otherWear.ts'
import { partsEndpoints } from './parts.ts'
import { peopleEndpoints } from './people.ts'
import { potEndpoints } from './pot.ts'
import { readingsEndpoints } from './readings.ts'
import { remindersEndpoints } from './reminders.ts'
import { sessionEndpoints } from './session.ts'
import { shopEndpoints } from './shop.ts'
import { sheetsEndpoints } from './sheets.ts'
import { standEndpoints } from './stand.ts'
import { stockEndpoints } from './stock.ts'
import { mailEndpoints } from './mail.ts'
import { tokensEndpoints } from './tokens.ts'
import { twinsEndpoints } from './twins.ts'
import { studiesEndpoints } from './studies.ts'

export * from './access.ts'
export * from './backups.ts'
export * from './bikes.ts'
export * from './care.ts'
export * from './catalogue.ts'
export * from './chains.ts'
export * from './closing.ts'
export * from './common.ts'
export * from './components.ts'
export * from './customers.ts'
export * from './diary.ts'
export * from './distance.ts'
export * from './endpoint.ts'
export * from './fieldProblems.ts'
export * from './files.ts'
export * from './fittedPart.ts'
export * from './forecast.ts'
export * from './gauge.ts'
export * from './imports.ts'
export * from './instruments.ts'
export * from './jobs.ts'
export * from './limits.ts'
export * from './looks.ts'
export * from './mends.ts'
export * from './newBike.ts'
export * from './orders.ts'
export * from './otherWear.ts'
export * from './partModels.ts'
export * from './parts.ts'
export * from './people.ts'
export * from './pot.ts'
export * from './readings.ts'
export * from './reminders.ts'
export * from './session.ts'
export * from './roles.ts'
export * from './sheets.ts'
export * from './shop.ts'
export * from './stand.ts'
export * from './standing.ts'
export * from './stock.ts'
export * from './studies.ts'
export * from './tablesIn.ts'
export * from './mail.ts'
export * from './tokens.ts'
export * from './twins.ts'

/** What the server can be asked, by capability. */
export const capabilities = {
  session: sessionEndpoints,
  shop: shopEndpoints,
  people: peopleEndpoints,
  access: accessEndpoints,
  mail: mailEndpoints,
  tokens: tokensEndpoints,
  twins: twinsEndpoints,
  stand: standEndpoints,
  bikes: bikesEndpoints,
  customers: customersEndpoints,
  newBike: newBikeEndpoints,
  readings: readingsEndpoints,
  distance: distanceEndpoints,
  forecast: forecastEndpoints,
  imports: importsEndpoints,
  gauge: gaugeEndpoints,
  instruments: instrumentsEndpoints,
  studies: studiesEndpoints,
  limits: limitsEndpoints,
  looks: looksEndpoints,
  parts: partsEndpoints,
  catalogue: catalogueEndpoints,
  stock: stockEndpoints,
  orders: ordersEndpoints,
  jobs: jobsEndpoints,
  care: careEndpoints,
  pot: potEndpoints,
  diary: diaryEndpoints,
  backups: backupsEndpoints,
  reminders: remindersEndpoints,
  chains: chainsEndpoints,
  components: componentsEndpoints,
  mends: mendsEndpoints,
  sheets: sheetsEndpoints,
  otherWear: otherWearEndpoints,
} as const

/** Everything the server can be asked. */
export const endpoints = {
  ...sessionEndpoints,
  ...shopEndpoints,
  ...peopleEndpoints,
  ...accessEndpoints,
  ...mailEndpoints,
  ...tokensEndpoints,
  ...twinsEndpoints,
  ...standEndpoints,
  ...bikesEndpoints,
  ...customersEndpoints,
  ...newBikeEndpoints,
  ...readingsEndpoints,
  ...distanceEndpoints,
  ...forecastEndpoints,
  ...importsEndpoints,
  ...gaugeEndpoints,
  ...instrumentsEndpoints,
  ...studiesEndpoints,
  ...limitsEndpoints,
  ...looksEndpoints,
  ...partsEndpoints,
  ...catalogueEndpoints,
  ...stockEndpoints,
  ...ordersEndpoints,
  ...jobsEndpoints,
  ...careEndpoints,
  ...potEndpoints,
  ...diaryEndpoints,
  ...backupsEndpoints,
  ...remindersEndpoints,
  ...chainsEndpoints,
  ...componentsEndpoints,
  ...mendsEndpoints,
  ...sheetsEndpoints,
  ...otherWearEndpoints,
}
