import { Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { assumptionsWith, careSteps, waxingAsUsual } from '@pelrin/core'
import { useBikeCare } from '../../api/queries.ts'
import { Refused } from '../../forms/Refused.tsx'
import { Beside } from '../../pieces/Beside.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { OfBike } from '../../pieces/OfBike.tsx'
import { StepsByPart } from '../../pieces/StepsByPart.tsx'
import { CareCosts } from './CareCosts.tsx'
import { CareDueWords } from './CareDueWords.tsx'
import { CareHistory } from './CareHistory.tsx'
import { CareSheets } from './CareSheets.tsx'
import { CareWritten } from './CareWritten.tsx'
import { RidersOwn } from './RidersOwn.tsx'
import { TreatmentList } from './TreatmentList.tsx'
import { useCarePlace, type CareBike } from './useCarePlace.ts'
import { WantedDays } from './WantedDays.tsx'
import { WaxCaseWords } from './WaxCaseWords.tsx'
import { unitOf } from '../../messages/format.ts'

/** The care of the chain on a bike: when it is due and why, written down by one more key, its steps beside. */
export function CarePlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const care = useBikeCare(id)
  return (
    <OfBike bikeId={id} title={t('caring.title')} needs={[care]} also={care.data?.chain?.name}>
      {(record) =>
        care.data && (
          <CareOf
            bikeId={id}
            record={record}
            care={care.data}
            unit={unitOf(record)}
            customer={record.customer.name}
            assumed={assumptionsWith(record.assumptions)}
          />
        )
      }
    </OfBike>
  )
}

function CareOf(bike: CareBike) {
  const { t } = useTranslation()
  const view = useCarePlace(bike)
  const { care, unit, bikeId, assumed } = bike
  const { chosen, cleaning, before, busy, wrong, dropDate, setSheet, setBack } = view
  if (!care.chain || !care.handling) return <Typography sx={{ fontSize: 'size.say' }}>{t('caring.noChain')}</Typography>
  const job = {
    before,
    wet: care.wet,
    handling: care.handling,
    // Which pot it goes into is chosen there.
    waxing: waxingAsUsual(care.waxing, assumed.pot, {
      vessel: 'thermostat',
      heatMinutes: assumed.pot.heatMinutes,
    }),
  }
  const steps = careSteps({ ...job, care: chosen, cleaning, checkFirst: care.next?.checkFirst ?? false })
  return (
    <>
      <Beside width={430} toRead beside={<StepsByPart steps={steps} />}>
        <CareDueWords {...view} />
        <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline', flexWrap: 'wrap', pt: 0.5 }}>
          <Typography variant="h2" sx={{ flex: 1 }}>
            {t('caring.record')}
          </Typography>
          <KeyButton of="care.plan" onClick={() => setSheet('plan')} sx={{ px: 1 }}>
            {t('caring.plan')}
          </KeyButton>
        </Stack>
        <TreatmentList {...view} />
        {chosen === 'immersion-wax' && <WaxCaseWords is={view.waxCase} steps={steps} />}
        <CareWritten {...view} />
        <Typography variant="body2" color="textSecondary">
          {t('caring.recordNote')} {t('caring.caution')}
        </Typography>
        <Refused>{view.closing === null ? wrong?.sentence : undefined}</Refused>
        <RidersOwn bikeId={bikeId} care={care} />
        <WantedDays care={care} unit={unit} onAdd={() => setSheet('wanted')} onDrop={dropDate} busy={busy} />
        <CareCosts record={bike.record} assumed={assumed} job={job} atHome={care.customer.careAt === 'home'} />
        <CareHistory bikeId={bikeId} events={care.events} onBack={setBack} />
      </Beside>
      <CareSheets {...view} />
    </>
  )
}
