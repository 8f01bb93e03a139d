import { Link, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { Link as Way, useParams } from 'react-router'
import { useJoint } from '../../api/queries.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { useChainWords } from './chainWords.ts'
import { ThingTimeline } from './ThingTimeline.tsx'

/** A link, a pin or a clip by itself, with every closing. */
export function JointPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const words = useChainWords()
  const page = useJoint(id)
  useTitle(t('chains.jointPage'))
  if (page.isPending) return <Loading />
  if (!page.data) return <Failure error={page.error} again={() => void page.refetch()} />
  const { joint, chain, events } = page.data
  return (
    <Stack sx={{ px: 2.75, py: 1.75, gap: 1, maxWidth: 760 }}>
      <Typography variant="h1">{words.joint(joint)}</Typography>
      {chain && (
        <Typography>
          <Link component={Way} to={`/chains/${chain.id}`}>
            {t('chains.ofJoint', { chain: chain.name })}
          </Link>
        </Typography>
      )}
      <Typography color="textSecondary">{t('chains.caution')}</Typography>
      <ThingTimeline events={events} />
    </Stack>
  )
}
