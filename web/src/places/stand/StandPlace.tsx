import { Box } from '@mui/material'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate, useSearchParams } from 'react-router'
import { useBike, useLineUp } from '../../api/queries.ts'
import { usePutOnStand } from '../../app/usePutOnStand.ts'
import { useBikeWays } from '../../pieces/BikeWays.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { LineUpList } from './LineUpList.tsx'
import { NothingYet } from './NothingYet.tsx'
import { OnStand } from './OnStand.tsx'
import { ThisVisit } from './ThisVisit.tsx'
import { useMoveVisit } from './useMoveVisit.ts'
import { useCommands } from '../../keys/useCommands.ts'

/** The day: who is in, the bike on the stand, and what to settle while it is here. */
export function StandPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [search, setSearch] = useSearchParams()
  const [whyOpen, setWhyOpen] = useState(false)
  const lineUp = useLineUp()
  const visits = useMemo(() => lineUp.data?.visits ?? [], [lineUp.data])
  const here = visits.find((visit) => visit.here)
  const chosenId = search.get('bike') ?? here?.bike.id ?? visits.find((visit) => visit.state !== 'done')?.bike.id
  const bike = useBike(chosenId)
  const chosen = visits.find((visit) => visit.bike.id === chosenId)
  const putOnStand = usePutOnStand()
  const move = useMoveVisit()

  const step = (by: number): void => {
    const at = visits.findIndex((visit) => visit.bike.id === chosenId)
    const next = visits[at < 0 ? 0 : Math.min(visits.length - 1, Math.max(0, at + by))]
    if (next) setSearch({ bike: next.bike.id }, { replace: true })
  }
  const measure = (): void => void (chosenId && navigate(`/bikes/${chosenId}/measure`))
  const record = (): void => void (chosenId && navigate(`/bikes/${chosenId}`))
  useCommands('stand', {
    up: () => step(-1),
    down: () => step(1),
    put: chosenId ? () => putOnStand(chosenId) : null,
    earlier: chosen ? () => move.by(visits, chosen, -1) : null,
    later: chosen ? () => move.by(visits, chosen, 1) : null,
    done: chosen ? () => move.done(chosen) : null,
    measure: chosenId ? measure : null,
    record: chosenId ? record : null,
    ...useBikeWays(chosenId),
    why: () => setWhyOpen(true),
    newBike: () => void navigate('/new-bike'),
  })

  useTitle(t('place.stand'))

  if (lineUp.isPending) return <Loading />
  if (!lineUp.data) return <Failure error={lineUp.error} again={() => void lineUp.refetch()} />
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '290px minmax(0, 1fr)', lg: '322px minmax(0, 1fr) 290px' },
        height: { md: '100%' },
      }}
    >
      <LineUpList
        visits={visits}
        chosenId={chosenId}
        onChoose={(bikeId) => setSearch({ bike: bikeId }, { replace: true })}
        onMove={(visit, before) => move.before(visit, before)}
      />
      {chosenId === undefined ? (
        <NothingYet />
      ) : bike.isPending ? (
        <Loading />
      ) : bike.data ? (
        <>
          <OnStand
            record={bike.data}
            visit={chosen}
            whyOpen={whyOpen}
            onWhy={setWhyOpen}
            onMeasure={measure}
            onRecord={record}
            onPut={() => putOnStand(chosenId)}
            onDone={chosen && (() => move.done(chosen))}
          />
          <ThisVisit record={bike.data} />
        </>
      ) : (
        <Failure error={bike.error} again={() => void bike.refetch()} />
      )}
    </Box>
  )
}
