import { useTranslation } from 'react-i18next'
import type { BikeSummary } from '@pelrin/contract'

/** What a bike is, in a few words: its name and its drive. */
export function BikeLine({ bike, teeth = false }: { bike: BikeSummary; teeth?: boolean }) {
  const { t } = useTranslation()
  const { drive } = bike
  const sprockets =
    drive.sprockets.length > 1
      ? `${Math.min(...drive.sprockets)}-${Math.max(...drive.sprockets)}`
      : drive.sprockets.join('')
  return (
    <>
      {bike.label}, {t(`drive.${drive.type}`, { speeds: drive.speeds })}
      {teeth && drive.fronts.length > 0 && `, ${drive.fronts.join('-')} / ${sprockets}`}
    </>
  )
}
