import { Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { endpoints, may } from '@pelrin/contract'
import { v7 } from 'uuid'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ink } from '../../theme/theme.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** Says that an apprentice wrote this down and nobody has looked at it yet; a mechanic says that they have. */
export function Unlooked({ bikeId, kind, id }: { bikeId: string; kind: 'reading' | 'care'; id: string }) {
  const { session } = useSurroundings()
  const { t } = useTranslation()
  const { busy, wrong, write } = useBikeWrite(bikeId, endpoints.lookOver.access)
  return (
    <Stack sx={{ gap: 0.5, alignItems: 'flex-start', mt: 0.25 }}>
      <Typography component="span" variant="body2" sx={{ color: ink('brass'), fontWeight: 700 }}>
        {wrong?.sentence ?? t('looks.apprentice')}
      </Typography>
      {may(session.person.role, 'decide') && (
        <Allowed right="decide">
          <Button
            variant="outlined"
            disabled={busy}
            onClick={() => void write(() => ask(endpoints.lookOver, { body: { kind, id }, key: v7() }))}
          >
            {t('looks.looked')}
          </Button>
        </Allowed>
      )}
    </Stack>
  )
}
