import { Button, Link, Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useTranslation } from 'react-i18next'
import { Link as Way } from 'react-router'
import { OLD_FATES, type OldFate } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useChain } from '../../api/queries.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useChainWords } from './chainWords.ts'
import { ThingTimeline } from './ThingTimeline.tsx'
import { Refused } from '../../forms/Refused.tsx'

/** One chain: where it is, what is known of it, everything that happened to it. */
export function ChainPane({ id, unit, bikeId }: { id: string; unit: 'km' | 'mi'; bikeId?: string }) {
  const { t } = useTranslation()
  const words = useChainWords()
  const client = useQueryClient()
  const { tell } = useSurroundings()
  const page = useChain(id)
  const { wrong, busy, write } = useBikeWrite(bikeId ?? page.data?.chain.bike?.id ?? '', endpoints.changeChain.access)
  if (page.isPending) return <Loading />
  if (!page.data) return <Failure error={page.error} again={() => void page.refetch()} />
  const { chain, events } = page.data
  const { state, bike, joint } = chain
  const become = async (fate: OldFate): Promise<void> => {
    const written = await write(() =>
      ask(endpoints.changeChain, { params: { id }, version: chain.version, body: { fate } }),
    )
    await client.invalidateQueries({ queryKey: keys.chain(id) })
    if (written) tell(t('chains.fateSaid'))
  }
  return (
    <Stack component="section" aria-label={chain.name} sx={{ gap: 1 }}>
      <Typography variant="h2">{chain.name}</Typography>
      <Typography>
        {bike && bike.id !== bikeId ? (
          <Link component={Way} to={`/bikes/${bike.id}/chains?chain=${id}`}>
            {bike.customer}, {bike.label}
          </Link>
        ) : (
          t(`chains.state.${state}`)
        )}
        {bike && bike.id !== bikeId && state !== 'on' && `, ${t(`chains.state.${state}`)}`}
      </Typography>
      <Typography color="textSecondary">
        {words.facts(chain, unit)}, {words.wear(chain)}
      </Typography>
      <Typography>
        {words.joint(joint)}{' '}
        {joint && (
          <Button component={Way} to={`/joints/${joint.id}`} sx={{ px: 1 }}>
            {t('chains.toJoint')}
          </Button>
        )}
      </Typography>
      {state !== 'on' && (
        <>
          <ToggleButtonGroup
            exclusive
            value={state}
            disabled={busy}
            aria-label={t('chains.fate')}
            onChange={(_, fate: OldFate | null) => fate && void become(fate)}
            sx={{ flexWrap: 'wrap' }}
          >
            {OLD_FATES.map((fate) => (
              <ToggleButton key={fate} value={fate} sx={{ px: 1.5 }}>
                {t(`jobs.fateOf.${fate}`)}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Refused>{wrong?.sentence}</Refused>
        </>
      )}
      <ThingTimeline events={events} {...(bikeId === undefined ? {} : { bikeId })} />
    </Stack>
  )
}
