// Formats are those of the browser's locale; the tests' browser is British.
Object.defineProperty(globalThis, 'navigator', { value: { language: 'en-GB' }, configurable: true, writable: true })
