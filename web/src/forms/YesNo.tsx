import { useTranslation } from 'react-i18next'
import { Choice } from './Choice.tsx'
import type { FieldOf } from './Line.tsx'

/** Yes, no, or not known. */
export function YesNo(field: FieldOf) {
  const { t } = useTranslation()
  return (
    <Choice
      {...field}
      options={[
        ['', t('form.notKnown')],
        ['yes', t('form.yes')],
        ['no', t('form.no')],
      ]}
    />
  )
}
