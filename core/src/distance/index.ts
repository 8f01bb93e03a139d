export * from './odometerDistance.ts'
export * from './parseOdometer.ts'
