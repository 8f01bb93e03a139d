// Formats are those of the browser's locale; the tests' browser is British.
const language = { value: 'en-GB', configurable: true, writable: true }
// There is a browser's navigator only where a test wants a document.
if ('navigator' in globalThis) Object.defineProperty(globalThis.navigator, 'language', language)
else Object.defineProperty(globalThis, 'navigator', { ...language, value: { language: language.value } })
