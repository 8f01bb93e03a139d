import { cleanup, configure } from '@testing-library/react'
import { afterEach } from 'vitest'
import { formatsAreOf } from '../messages/shopFormats.ts'
import { PATIENCE_MS } from './until.ts'

// Formats are those of the browser's locale; the tests' browser is British.
const language = { value: 'en-GB', configurable: true, writable: true }
// There is a browser's navigator only where a test wants a document.
if ('navigator' in globalThis) Object.defineProperty(globalThis.navigator, 'language', language)
else Object.defineProperty(globalThis, 'navigator', { ...language, value: { language: language.value } })

// The shop of the tests is British.
formatsAreOf({ locale: 'en-GB', timeZone: 'Europe/London', currency: 'GBP', distanceUnit: 'km', temperatureUnit: 'C' })

configure({ asyncUtilTimeout: PATIENCE_MS })

// What is still on its way when a file has ended would come to a window that is gone.
afterEach(() => {
  if ('document' in globalThis) cleanup()
})
