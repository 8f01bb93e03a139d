import { INSTRUMENT_KINDS } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { useParams, useSearchParams } from 'react-router'
import { useBike, useInstruments } from '../../api/queries.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { MeasureBench } from './MeasureBench.tsx'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** Measuring the bike in hand, or correcting a reading of it. */
export function MeasurePlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const [search] = useSearchParams()
  const bike = useBike(id)
  useTitle(t('place.measure'))
  const instruments = useInstruments()
  if (bike.isPending || instruments.isPending) return <Loading />
  if (!bike.data) return <Failure error={bike.error} again={() => void bike.refetch()} />
  if (!instruments.data) return <Failure error={instruments.error} again={() => void instruments.refetch()} />
  if (!bike.data.chain)
    return <EmptyNext next={{ says: t('chains.title'), to: `/bikes/${id}/chains` }}>{t('measure.noChain')}</EmptyNext>
  if (instruments.data.length === 0)
    return <EmptyNext next={{ says: t('gauges.add'), to: '/gauges' }}>{t('measure.noInstrument')}</EmptyNext>
  const corrects = bike.data.readings.find((reading) => reading.id === search.get('correct')) ?? null
  const onTheWall = [...instruments.data].sort(
    (a, b) => INSTRUMENT_KINDS.indexOf(a.kind) - INSTRUMENT_KINDS.indexOf(b.kind),
  )
  return (
    <MeasureBench key={`${id} ${corrects?.id ?? ''}`} record={bike.data} instruments={onTheWall} corrects={corrects} />
  )
}
