import { useTranslation } from 'react-i18next'
import { Line } from '../../forms/Line.tsx'

/** The password and the PIN somebody chooses. */
export function SecretFields({ autoFocus = false }: { autoFocus?: boolean }) {
  const { t } = useTranslation()
  return (
    <>
      <Line
        name="password"
        label={t('people.password')}
        hint={t('people.passwordHint')}
        of="password"
        autoComplete="new-password"
        autoFocus={autoFocus}
      />
      <Line name="pin" label={t('people.pin')} hint={t('people.pinHint')} of="pin" longest={8} autoComplete="off" />
    </>
  )
}
