import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, may, TOKEN_RIGHTS, type ApiToken } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Flags } from '../../forms/Flags.tsx'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ago } from '../../messages/format.ts'
import { Loading } from '../../pieces/States.tsx'

/** By which other programs ask: named, for what each is, taken back. */
export function Tokens() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [making, setMaking] = useState(false)
  const isOwner = may(session.person.role, 'owner')
  const tokens = useQuery({
    queryKey: keys.tokens,
    queryFn: ({ signal }) => ask(endpoints.apiTokens, { signal }),
    enabled: isOwner,
  })
  const { wrong, write } = useWrite({ access: endpoints.revokeToken.access, stale: [keys.tokens] })
  if (!isOwner) return null
  if (!tokens.data) return <Loading />
  return (
    <Box component="section" aria-labelledby="tokens" sx={{ mt: 3 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
        <Typography id="tokens" variant="h2" sx={{ flex: 1 }}>
          {t('tokens.title')}
        </Typography>
        <Button variant="outlined" onClick={() => setMaking(true)}>
          {t('tokens.make')}
        </Button>
      </Stack>
      <Typography color="textSecondary">{t('tokens.note')}</Typography>
      {tokens.data.map((token) => (
        <Row
          key={token.id}
          token={token}
          onRevoke={() => void write(() => ask(endpoints.revokeToken, { params: { id: token.id } }))}
        />
      ))}
      <Refused>{wrong?.sentence}</Refused>
      {making && <Make onClose={() => setMaking(false)} />}
    </Box>
  )
}

function Row({ token: { name, rights, person, lastUsedAt }, onRevoke }: { token: ApiToken; onRevoke: () => void }) {
  const { t } = useTranslation()
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 2, borderTop: 1, borderColor: 'divider', py: 1 }}>
      <Box sx={{ flex: 1 }}>
        <Typography sx={{ fontWeight: 700 }}>{name}</Typography>
        <Typography variant="body2" color="textSecondary">
          {[
            t('tokens.reads'),
            ...rights.map((right) => t(`people.right.${right}`)),
            t('tokens.by', { name: person }),
            lastUsedAt === null ? t('tokens.unused') : t('tokens.used', { ago: ago(lastUsedAt) }),
          ].join('; ')}
        </Typography>
      </Box>
      <Button onClick={onRevoke} aria-label={`${t('tokens.revoke')}: ${name}`}>
        {t('tokens.revoke')}
      </Button>
    </Stack>
  )
}

type TokenRight = ApiToken['rights'][number]

/** Made, and told once. */
function Make({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const [token, setToken] = useState<string | null>(null)
  const form = useWriteForm({
    access: endpoints.makeToken.access,
    schema: endpoints.makeToken.body,
    start: { name: '', rights: [] as TokenRight[] },
    read: ({ name, rights }, id) => ({ id, name, rights }),
    send: (body) => ask(endpoints.makeToken, { body }),
    done: (made) => {
      client.setQueryData(keys.tokens, made.tokens)
      setToken(made.token)
    },
  })
  return (
    <FormDialog form={form} title={t('tokens.make')} go={t('tokens.makeGo')} ready={token === null} onClose={onClose}>
      {token === null ? (
        <>
          <Line name="name" label={t('tokens.name')} longest={60} autoFocus />
          <Flags
            name="rights"
            label={t('tokens.rights')}
            options={TOKEN_RIGHTS.map((right) => [right, t(`people.right.${right}`)])}
          />
        </>
      ) : (
        <>
          <Typography>{t('tokens.once')}</Typography>
          <TextField value={token} label={t('tokens.token')} slotProps={{ htmlInput: { readOnly: true } }} />
        </>
      )}
    </FormDialog>
  )
}
