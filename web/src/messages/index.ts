import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { en } from './en.ts'

declare module 'i18next' {
  interface CustomTypeOptions {
    resources: { translation: typeof en }
    returnNull: false
  }
}

/** Kept on a device by whoever works on words; anything else than the language nobody speaks is English. */
const asked = typeof localStorage === 'undefined' ? null : localStorage.getItem('pelrin-language')
const translation = asked === 'en-XA' ? (await import('./pseudo.ts')).pseudo(en) : en

await i18next.use(initReactI18next).init({
  lng: 'en',
  fallbackLng: 'en',
  resources: { en: { translation } },
  interpolation: { escapeValue: false },
})

export { i18next as messages }
