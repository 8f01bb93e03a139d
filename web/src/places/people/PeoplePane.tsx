import { Box, Button, Stack, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type Colleague } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { LeavingDialog } from './LeavingDialog.tsx'
import { LinkDialog } from './LinkDialog.tsx'
import { PersonDialog } from './PersonDialog.tsx'
import { PersonRow } from './PersonRow.tsx'
import { RightsTable } from './RightsTable.tsx'

/** What is open over the list. */
type Open = { readonly what: 'add' } | { readonly what: 'change' | 'leave' | 'link'; readonly person: Colleague }

/** Who works here and did, what they may do, and how they come in. */
export function PeoplePane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [open, setOpen] = useState<Open | null>(null)
  const isOwner = may(session.person.role, 'owner')
  const people = useQuery({
    queryKey: keys.people,
    queryFn: ({ signal }) => ask(endpoints.people, { signal }),
    enabled: isOwner,
  })
  if (!isOwner) return <Typography>{t('people.owner')}</Typography>
  if (people.isPending) return <Loading />
  if (!people.data) return <Failure error={people.error} again={() => void people.refetch()} />
  const close = (): void => setOpen(null)
  return (
    <Stack sx={{ gap: 2, maxWidth: 980 }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
        <Typography color="textSecondary" sx={{ flex: 1, minWidth: 260 }}>
          {t('people.note')}
        </Typography>
        <Button variant="contained" onClick={() => setOpen({ what: 'add' })} sx={{ minHeight: 56 }}>
          {t('people.add')}
        </Button>
      </Stack>
      <Box component="ul" aria-label={t('rules.tab.people')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {people.data.map((person) => (
          <PersonRow key={person.id} person={person} onOpen={(what) => setOpen({ what, person })} />
        ))}
      </Box>
      <RightsTable />
      {open?.what === 'add' && (
        <PersonDialog person={null} onClose={close} onAdded={(person) => setOpen({ what: 'link', person })} />
      )}
      {open?.what === 'change' && <PersonDialog person={open.person} onClose={close} onAdded={close} />}
      {open?.what === 'leave' && <LeavingDialog person={open.person} onClose={close} />}
      {open?.what === 'link' && <LinkDialog person={open.person} onClose={close} />}
    </Stack>
  )
}
