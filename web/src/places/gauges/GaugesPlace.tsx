import { Box, Button, ButtonBase, Stack, Typography } from '@mui/material'
import { INSTRUMENT_KINDS, measuresNothing } from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import type { Instrument } from '@pelrin/contract'
import { useInstrument, useRegister } from '../../api/queries.ts'
import { day } from '../../messages/format.ts'
import { InstrumentGlyph } from '../../pieces/InstrumentGlyph.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { CheckSheet } from './CheckSheet.tsx'
import { InstrumentRecord } from './InstrumentRecord.tsx'
import { LiveGauge } from './LiveGauge.tsx'
import { RecordForm } from './RecordForm.tsx'
import { standingOf } from './standing.ts'
import { Studies } from './Studies.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'
import { WhatItTells } from './WhatItTells.tsx'

/** The shop's instruments: what each can do, when it was checked, and what that changed. */
export function GaugesPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { id } = useParams()
  const register = useRegister()
  const first = register.data && [...register.data].sort(onTheWall)[0]?.id
  const chosen = id ?? first
  const history = useInstrument(chosen)
  const [sheet, setSheet] = useState<'check' | 'record' | 'add' | null>(null)
  useCommands('gauges', { check: () => setSheet('check'), record: () => setSheet('record') })
  useTitle(t('place.gauges'))
  if (register.isPending) return <Loading />
  if (!register.data) return <Failure error={register.error} again={() => void register.refetch()} />
  const close = (): void => setSheet(null)
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '380px minmax(0, 1fr)' }, minHeight: '100%' }}>
      <Box sx={{ borderRight: { md: 1 }, borderColor: { md: 'divider' }, pt: 1.5, pb: 2 }}>
        <Box sx={{ px: 2.25, mb: 1 }}>
          <Typography variant="h1">{t('place.gauges')}</Typography>
          <Stack direction="row" sx={{ gap: 1, mt: 1 }}>
            <Allowed right="instruments">
              <Button variant="outlined" onClick={() => setSheet('add')} sx={{ flex: 1, lineHeight: 1.15 }}>
                {t('gauges.add')}
              </Button>
            </Allowed>
            <Button variant="outlined" component={Link} to="/rule-chart" sx={{ flex: 1 }}>
              {t('gauges.ruleChart')}
            </Button>
          </Stack>
        </Box>
        <Box component="nav" aria-label={t('gauges.list')}>
          {[...register.data].sort(onTheWall).map((instrument) => (
            <Row
              key={instrument.id}
              instrument={instrument}
              retired={instrument.retiredAt !== null}
              chosen={instrument.id === chosen}
              onChoose={() => void navigate(`/gauges/${instrument.id}`)}
            />
          ))}
        </Box>
      </Box>
      <Box sx={{ px: 2.75, pt: 1.5, pb: 3, minWidth: 0 }}>
        {history.data ? (
          <>
            <Stack direction="row" sx={{ gap: 2, alignItems: 'center', mb: 1.5, flexWrap: 'wrap' }}>
              <InstrumentGlyph kind={history.data.instrument.kind} width={66} />
              <Box sx={{ flex: 1, minWidth: 240 }}>
                <Typography variant="h1" component="h2">
                  {history.data.instrument.name}
                </Typography>
                <Typography color="textSecondary">{t(`instrument.${history.data.instrument.kind}`)}</Typography>
              </Box>
              <KeyButton
                of="gauges.record"
                variant="outlined"
                onClick={() => setSheet('record')}
                sx={{ minHeight: 52 }}
              >
                {t('gauges.change')}
              </KeyButton>
              {!measuresNothing(history.data.instrument.kind) && (
                <KeyButton
                  of="gauges.check"
                  variant="contained"
                  onClick={() => setSheet('check')}
                  sx={{ minHeight: 52 }}
                >
                  {t('gauges.check')}
                </KeyButton>
              )}
            </Stack>
            <InstrumentRecord history={history.data} />
            <WhatItTells history={history.data} />
            {!measuresNothing(history.data.instrument.kind) && <Studies instrument={history.data.instrument} />}
            {history.data.instrument.connected && (
              <LiveGauge key={history.data.instrument.id} instrument={history.data.instrument} />
            )}
            {sheet === 'check' && !measuresNothing(history.data.instrument.kind) && (
              <CheckSheet history={history.data} onClose={close} />
            )}
            {sheet === 'record' && <RecordForm history={history.data} onClose={close} />}
          </>
        ) : history.isPending && chosen !== undefined ? (
          <Loading />
        ) : chosen === undefined ? (
          <EmptyNext next={{ says: t('gauges.add'), run: () => setSheet('add') }}>{t('gauges.none')}</EmptyNext>
        ) : (
          <Failure error={history.error} again={() => void history.refetch()} />
        )}
        {sheet === 'add' && <RecordForm history={null} onClose={close} />}
      </Box>
    </Box>
  )
}

/** Those in use first, in the order of their kinds. */
const onTheWall = (
  a: Instrument & { retiredAt: string | null },
  b: Instrument & { retiredAt: string | null },
): number =>
  Number(a.retiredAt !== null) - Number(b.retiredAt !== null) ||
  INSTRUMENT_KINDS.indexOf(a.kind) - INSTRUMENT_KINDS.indexOf(b.kind)

function Row({
  instrument,
  retired,
  chosen,
  onChoose,
}: {
  instrument: Instrument
  retired: boolean
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  const { tone, text } = standingOf(instrument, retired)
  return (
    <ButtonBase
      onClick={onChoose}
      aria-current={chosen ? 'page' : undefined}
      sx={{
        width: '100%',
        display: 'grid',
        gridTemplateColumns: '46px minmax(0, 1fr)',
        gap: 1.5,
        alignItems: 'center',
        textAlign: 'left',
        minHeight: 60,
        px: 2.25,
        borderTop: 1,
        borderColor: 'divider',
        bgcolor: chosen ? ink('sheet') : 'transparent',
        boxShadow: chosen ? `inset 4px 0 0 ${ink('steel')}` : 'none',
        opacity: retired ? 0.55 : 1,
      }}
    >
      <InstrumentGlyph kind={instrument.kind} width={44} />
      <Box sx={{ minWidth: 0 }}>
        <Typography noWrap sx={{ fontWeight: 600 }}>
          {instrument.name}
        </Typography>
        <Typography variant="body2" noWrap sx={{ color: tone === null ? 'text.secondary' : ink(tone) }}>
          {t(`gauges.standing.${text}`, {
            date: instrument.checkDueOn === null ? '' : day(instrument.checkDueOn),
          })}
        </Typography>
      </Box>
    </ButtonBase>
  )
}
