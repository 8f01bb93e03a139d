import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'

/** What the tab, its history and a screen reader call the place that is open. */
export function useTitle(title: string): void {
  const { t } = useTranslation()
  useEffect(() => {
    document.title = `${title} – ${t('app.name')}`
  }, [title, t])
}
