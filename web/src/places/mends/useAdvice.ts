import { useTranslation } from 'react-i18next'
import type { KeepOff } from '@pelrin/core'
import type { Mend } from '@pelrin/contract'

/** What a rider of a mended chain is told, in writing: to be changed by whoever hands it over. */
export function useAdvice(off: readonly KeepOff[], cause: Mend['cause'] | null, roadside: boolean): string {
  const { t } = useTranslation()
  const gears = off
    .filter(({ verdict }) => verdict === 'forbidden')
    .map(({ verdict, ring, which, rears }) =>
      t(`parts.keepOff.${verdict}`, {
        which: t(`parts.which.${which}`, { count: rears.length, teeth: rears.join(', ') }),
        ring: t(`parts.ring.${ring}`),
      }),
    )
  return [
    t(roadside ? 'mends.advice.roadside' : 'mends.advice.soon'),
    gears.length > 0 ? t('mends.advice.reach', { gears: gears.join(' ') }) : null,
    t('mends.advice.pedal'),
    cause === null
      ? null
      : cause === 'not-found'
        ? t('mends.advice.notFound')
        : t('mends.advice.found', { cause: t(`mends.causeOf.${cause}`) }),
  ]
    .filter((part) => part !== null)
    .join(' ')
}
