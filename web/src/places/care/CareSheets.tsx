import { useTranslation } from 'react-i18next'
import { useSurroundings } from '../../app/surroundings.ts'
import { ClosingDialog } from '../../pieces/ClosingDialog.tsx'
import { ReasonDialog } from '../../pieces/ReasonDialog.tsx'
import { CarePlanDialog } from './CarePlanDialog.tsx'
import type { CareView } from './useCarePlace.ts'
import { WantedDialog } from './WantedDialog.tsx'

/** What lies open over the place. */
export function CareSheets({
  bikeId,
  care,
  customer,
  sheet,
  setSheet,
  back,
  setBack,
  takeBack,
  closing,
  setClosing,
  treat,
  busy,
  wrong,
}: CareView) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const close = (): void => setSheet(null)
  return (
    <>
      {sheet === 'plan' && <CarePlanDialog bikeId={bikeId} care={care} customer={customer} onClose={close} />}
      {sheet === 'wanted' && (
        <WantedDialog
          bikeId={bikeId}
          onClose={close}
          onAdded={() => {
            close()
            tell(t('caring.wanted.added'))
          }}
        />
      )}
      {closing !== null && care.chain && (
        <ClosingDialog
          bikeId={bikeId}
          joint={care.chain.joint}
          toLink={closing === 'immersion-wax'}
          title={t('closing.title', { chain: care.chain.name })}
          busy={busy}
          wrong={wrong?.sentence}
          onClose={() => setClosing(null)}
          onClosed={(how) => treat(closing, how)}
        />
      )}
      {back !== null && (
        <ReasonDialog
          access="record"
          title={t('caring.backTitle')}
          go={t('caring.back')}
          onClose={() => setBack(null)}
          onReason={(reason) => takeBack(back, reason)}
        />
      )}
    </>
  )
}
