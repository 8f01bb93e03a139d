import type { Ride } from '@pelrin/contract'
import { day, distance } from '../../messages/format.ts'

/** A ride as it is spoken of. */
export const rideName = (ride: Ride, unit: 'km' | 'mi'): string => `${day(ride.startedAt)}, ${distance(ride.km, unit)}`
