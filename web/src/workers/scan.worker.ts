import { expose } from 'comlink'
import { readCode } from './readCode.ts'

// A picture takes some hundredths of a second on a tablet: off the main thread, so that what the camera sees moves smoothly.
const reading = { read: readCode }
export type Reading = typeof reading

expose(reading)
