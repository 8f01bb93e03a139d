import { bikesEndpoints } from './bikes.ts'
import { catalogueEndpoints } from './catalogue.ts'
import { distanceEndpoints } from './distance.ts'
import { forecastEndpoints } from './forecast.ts'
import { gaugeEndpoints } from './gauge.ts'
import { importsEndpoints } from './imports.ts'
import { instrumentsEndpoints } from './instruments.ts'
import { jobsEndpoints } from './jobs.ts'
import { limitsEndpoints } from './limits.ts'
import { ordersEndpoints } from './orders.ts'
import { partsEndpoints } from './parts.ts'
import { readingsEndpoints } from './readings.ts'
import { sessionEndpoints } from './session.ts'
import { standEndpoints } from './stand.ts'
import { stockEndpoints } from './stock.ts'
import { studiesEndpoints } from './studies.ts'

export * from './bikes.ts'
export * from './catalogue.ts'
export * from './common.ts'
export * from './distance.ts'
export * from './endpoint.ts'
export * from './forecast.ts'
export * from './gauge.ts'
export * from './imports.ts'
export * from './instruments.ts'
export * from './jobs.ts'
export * from './limits.ts'
export * from './orders.ts'
export * from './partModels.ts'
export * from './parts.ts'
export * from './readings.ts'
export * from './session.ts'
export * from './stand.ts'
export * from './stock.ts'
export * from './studies.ts'

/** Everything the server can be asked. */
export const endpoints = {
  ...sessionEndpoints,
  ...standEndpoints,
  ...bikesEndpoints,
  ...readingsEndpoints,
  ...distanceEndpoints,
  ...forecastEndpoints,
  ...importsEndpoints,
  ...gaugeEndpoints,
  ...instrumentsEndpoints,
  ...studiesEndpoints,
  ...limitsEndpoints,
  ...partsEndpoints,
  ...catalogueEndpoints,
  ...stockEndpoints,
  ...ordersEndpoints,
  ...jobsEndpoints,
}
