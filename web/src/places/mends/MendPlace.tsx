import { useTranslation } from 'react-i18next'
import { useParams } from 'react-router'
import { useBikeMends, useBikeParts } from '../../api/queries.ts'
import { OfBike } from '../../pieces/OfBike.tsx'
import { MendBench } from './MendBench.tsx'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** A chain that broke: looked over, mended or replaced. */
export function MendPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const mends = useBikeMends(id)
  const parts = useBikeParts(id)
  return (
    <OfBike bikeId={id} title={t('mends.title')} needs={[mends, parts]} also={mends.data?.chain?.name}>
      {({ summary }) =>
        mends.data?.chain && parts.data ? (
          <MendBench
            bikeId={id}
            known={mends.data}
            summary={summary}
            chain={mends.data.chain}
            drive={parts.data.drive}
          />
        ) : (
          <EmptyNext next={{ says: t('chains.title'), to: `/bikes/${id}/chains` }}>{t('mends.none')}</EmptyNext>
        )
      }
    </OfBike>
  )
}
