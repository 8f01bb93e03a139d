import { Box, Button, Stack, Typography } from '@mui/material'
import { QRCodeSVG } from 'qrcode.react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { RackState } from '@pelrin/contract'
import { useRack } from '../../api/queries.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

/** A sheet holds so many. */
const MOST = 60

/** Tags of the bikes the rack shows, to print and tie on: a code that opens the bike, and its number for eyes. */
export function TagsPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const [search] = useSearchParams()
  const state = RackState.options.find((one) => one === search.get('state'))
  const rack = useRack({ q: search.get('q') ?? '', state, drive: undefined })
  const bikes = (rack.data?.pages.flatMap((page) => page.bikes) ?? []).slice(0, MOST)
  useTitle(t('tags.title'))
  useCommands('tags', { print: () => window.print(), back: () => navigate('/rack') })
  if (rack.isPending) return <Loading />
  if (!rack.data) return <Failure error={rack.error} again={() => void rack.refetch()} />
  return (
    <Stack sx={{ px: 2.75, pt: 1.5, pb: 3, gap: 1.5 }}>
      <Stack data-no-print direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Box sx={{ flex: 1 }}>
          <Typography variant="h1">{t('tags.count', { count: bikes.length })}</Typography>
          <Typography color="textSecondary">{t('tags.note', { count: MOST })}</Typography>
        </Box>
        <Button component={Link} to="/rack" variant="outlined">
          {t('tags.toRack')}
        </Button>
        <KeyButton of="tags.print" variant="contained" onClick={() => window.print()} sx={{ minHeight: 56 }}>
          {t('tags.print')}
        </KeyButton>
      </Stack>
      {bikes.length === 0 && <EmptyNext next={{ says: t('tags.toRack'), to: '/rack' }}>{t('tags.none')}</EmptyNext>}
      <Box
        component="ul"
        aria-label={t('tags.title')}
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(66mm, 1fr))',
        }}
      >
        {bikes.map(({ id, tag, label, customer }) => (
          <Box
            component="li"
            key={id}
            sx={{
              display: 'flex',
              gap: '4mm',
              alignItems: 'center',
              border: '1px dashed #8a8a84',
              p: '4mm',
              m: '-0.5px',
              bgcolor: '#fff',
              color: '#1d2328',
              breakInside: 'avoid',
            }}
          >
            <QRCodeSVG
              value={`${window.location.origin}/t/${encodeURIComponent(tag)}`}
              style={{ width: '24mm', height: '24mm', flexShrink: 0 }}
              level="M"
              title={t('tags.code', { tag })}
            />
            <span>
              <Typography
                component="span"
                sx={{ display: 'block', fontSize: 'size.big', fontWeight: 700, lineHeight: 1 }}
              >
                {tag}
              </Typography>
              <Typography component="span" sx={{ display: 'block', fontWeight: 600 }}>
                {label}
              </Typography>
              <Typography component="span" variant="body2">
                {customer.name}
              </Typography>
            </span>
          </Box>
        ))}
      </Box>
    </Stack>
  )
}
