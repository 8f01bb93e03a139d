import i18next from 'i18next'
import { initReactI18next } from 'react-i18next'
import { en } from './en.ts'

declare module 'i18next' {
  interface CustomTypeOptions {
    resources: { translation: typeof en }
    returnNull: false
  }
}

await i18next.use(initReactI18next).init({
  lng: 'en',
  fallbackLng: 'en',
  resources: { en: { translation: en } },
  interpolation: { escapeValue: false },
})

export { i18next as messages }
