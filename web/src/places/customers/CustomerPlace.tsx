import { Box, Button, Link, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link as RouterLink, useParams } from 'react-router'
import { may, type CustomerPage } from '@pelrin/contract'
import { useSurroundings } from '../../app/surroundings.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { clock, day, moneyText } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { useOwnersFile } from '../house-rules/useOwnersFile.ts'
import { ink } from '../../theme/theme.ts'
import { CustomerDialog } from './CustomerDialog.tsx'
import { EraseDialog } from './EraseDialog.tsx'
import { MergeDialog } from './MergeDialog.tsx'
import { TheirBikes } from './TheirBikes.tsx'
import { Twins } from './Twins.tsx'
import { useCustomer } from './useCustomer.ts'

/** One customer: how to reach them, bikes now and before, visits, messages, what was spent. */
export function CustomerPlace() {
  const { t } = useTranslation()
  const { id = '' } = useParams()
  const customer = useCustomer(id)
  useTitle(customer.data?.name ?? t('customer.title'))
  if (customer.isPending) return <Loading />
  if (!customer.data) return <Failure error={customer.error} again={() => void customer.refetch()} />
  return <Of key={id} customer={customer.data} />
}

function Of({ customer }: { customer: CustomerPage }) {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const download = useOwnersFile()
  const [open, setOpen] = useState<'change' | 'merge' | 'erase' | null>(null)
  const close = (): void => setOpen(null)
  const { role } = session.person
  const is = customer.erasedAt === null && customer.mergedInto === null
  const mayChange = is && may(role, 'customers')
  const owns = is && may(role, 'owner')
  useCommands('customer', {
    change: mayChange ? () => setOpen('change') : null,
    merge: mayChange ? () => setOpen('merge') : null,
  })
  return (
    <Box sx={{ px: 2.75, py: 1.75, maxWidth: 1180 }}>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'center', mb: 0.5 }}>
        <Typography variant="h1" sx={{ flex: 1, minWidth: 240 }}>
          {customer.name}
        </Typography>
        {mayChange && (
          <>
            <KeyButton
              of="customer.change"
              variant="contained"
              onClick={() => setOpen('change')}
              sx={{ minHeight: 56 }}
            >
              {t('customer.change')}
            </KeyButton>
            <KeyButton of="customer.merge" variant="outlined" onClick={() => setOpen('merge')} sx={{ minHeight: 56 }}>
              {t('customer.merge')}
            </KeyButton>
          </>
        )}
      </Stack>
      <Reach customer={customer} />
      <Twins customer={customer} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
          columnGap: 5,
          rowGap: 2,
          mt: 2,
        }}
      >
        <TheirBikes bikes={customer.bikes} />
        <Lines
          title={t('customer.spent', { amount: moneyText(customer.spent.total) })}
          none={t('customer.noJobs')}
          lines={customer.spent.jobs.map(({ at, bike, amount }) => [day(at), bike, moneyText(amount)])}
        />
        <Lines
          title={t('customer.visits')}
          none={t('customer.noVisits')}
          lines={customer.visits.map((visit) => [day(visit.day), visit.bike, visit.reason])}
        />
        <Lines
          title={t('customer.messages')}
          none={t('customer.noMessages')}
          lines={customer.messages.map(({ at, text, theirs }) => [
            t('access.at', { day: day(at), time: clock(at) }),
            t(theirs ? 'customer.theirs' : 'customer.ours'),
            text,
          ])}
        />
      </Box>
      {owns && (
        <Stack direction="row" sx={{ gap: 1.5, mt: 3, flexWrap: 'wrap' }}>
          <Button
            component="a"
            href={`/api/v1/customers/${customer.id}/all.json`}
            download
            onClick={download}
            variant="outlined"
          >
            {t('customer.all')}
          </Button>
          <Button color="error" onClick={() => setOpen('erase')}>
            {t('customer.erase')}
          </Button>
        </Stack>
      )}
      {open === 'change' && <CustomerDialog customer={customer} onClose={close} />}
      {open === 'merge' && <MergeDialog customer={customer} onClose={close} />}
      {open === 'erase' && <EraseDialog customer={customer} onClose={close} />}
    </Box>
  )
}

/** How they are reached and what suits them, in one line each. */
function Reach({ customer }: { customer: CustomerPage }) {
  const { t } = useTranslation()
  const { phone, email, notes, optedOut, mergedInto, erasedAt } = customer
  if (erasedAt !== null) return <Typography>{t('customer.erased', { day: day(erasedAt) })}</Typography>
  if (mergedInto)
    return (
      <Typography>
        {t('customer.mergedInto')}{' '}
        <Link component={RouterLink} to={`/customers/${mergedInto.id}`}>
          {mergedInto.name}
        </Link>
      </Typography>
    )
  return (
    <Box>
      <Stack direction="row" sx={{ gap: 2.5, flexWrap: 'wrap', fontSize: 'size.lead' }}>
        {phone === null ? <span>{t('customer.noPhone')}</span> : <Link href={`tel:${phone}`}>{phone}</Link>}
        {email !== null && <Link href={`mailto:${email}`}>{email}</Link>}
        {customer.emailRefused && (
          <Typography sx={{ fontWeight: 700, color: ink('madder') }}>{t('customer.emailRefused')}</Typography>
        )}
        <Typography color="textSecondary">{t(`reminding.language.${customer.language}`)}</Typography>
        {customer.rhythmDays !== null && (
          <Typography color="textSecondary">{t('customer.rhythm', { count: customer.rhythmDays })}</Typography>
        )}
        {optedOut && <Typography sx={{ fontWeight: 700 }}>{t('customer.optedOut')}</Typography>}
      </Stack>
      {notes !== '' && <Typography sx={{ whiteSpace: 'pre-line', mt: 0.5 }}>{notes}</Typography>}
    </Box>
  )
}

/** A list of what was, each line of three. */
function Lines({
  title,
  none,
  lines,
}: {
  title: string
  none: string
  lines: readonly (readonly [string, string, string])[]
}) {
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {lines.length === 0 && <Typography color="textSecondary">{none}</Typography>}
      {lines.map(([when, what, more], i) => (
        <Stack
          key={`${when} ${what} ${String(i)}`}
          direction="row"
          sx={{ gap: 2, borderTop: 1, borderColor: 'divider', py: 0.5, alignItems: 'baseline' }}
        >
          <Typography color="textSecondary" sx={{ width: 118, flexShrink: 0 }}>
            {when}
          </Typography>
          <Typography sx={{ fontWeight: 600, minWidth: 90 }}>{what}</Typography>
          <Typography sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>{more}</Typography>
        </Stack>
      ))}
    </Box>
  )
}
