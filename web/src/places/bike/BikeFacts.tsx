import { Box, Button, Stack, Typography } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import { may, type BikeRecord } from '@pelrin/contract'
import { useSurroundings } from '../../app/surroundings.ts'
import { day, distance, number, unitOf } from '../../messages/format.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { Why } from '../../pieces/Why.tsx'
import { BikeDialog } from './BikeDialog.tsx'
import { PassDialog } from './PassDialog.tsx'
import { RhythmChoice } from './RhythmChoice.tsx'
import { TwinDialog } from '../twins/TwinDialog.tsx'
import { RuleChoice } from './RuleChoice.tsx'

/** What the bike is, and a way to change what it is called. */
export function BikeFacts({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [open, setOpen] = useState<'edit' | 'pass' | 'twin' | null>(null)
  const close = (): void => setOpen(null)
  const { summary, chain, lastOdometer } = record
  const unit = unitOf({ lastOdometer })
  const facts: [string, ReactNode][] = [
    [
      t('bike.customer'),
      record.customer.phone ? `${record.customer.name}, ${record.customer.phone}` : record.customer.name,
    ],
    [
      t('bike.drive'),
      summary.drive.fronts.length > 0
        ? t('bike.teeth', { fronts: summary.drive.fronts.join('-'), sprockets: summary.drive.sprockets.join(' ') })
        : '',
    ],
    [
      t('bike.frame'),
      [
        record.maker,
        record.model,
        record.weightKg === null ? null : `${number(record.weightKg, 1)} kg,`,
        summary.frameMark,
      ]
        .filter((part) => part !== null)
        .join(' '),
    ],
    [
      t('stand.chain'),
      chain
        ? [
            chain.name,
            chain.pitches === null ? null : t('stand.pitches', { count: chain.pitches }),
            t(`care.${chain.care}`),
            chain.start === 'fitted' ? t('stand.fitted', { date: day(chain.fittedAt) }) : t('stand.cameWith'),
          ]
            .filter((part) => part !== null)
            .join(', ')
        : t('app.unknown'),
    ],
    [
      t('rack.ran'),
      summary.chainKm === null ? (
        t('app.unknown')
      ) : (
        <>
          {distance(summary.chainKm, unit)}{' '}
          {record.distanceExplanation && <Why explanations={[record.distanceExplanation]} label={t('rack.ran')} />}
        </>
      ),
    ],
    [t('rules.ruleOfBike'), <RuleChoice key="rule" record={record} />],
    [t('rules.rhythm'), <RhythmChoice key="rhythm" record={record} />],
    [t('bike.notes'), record.notes === '' ? '–' : record.notes],
  ]
  return (
    <Box component="section" aria-label={t('bike.record')}>
      <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <Typography variant="h3" component="h2" color="textSecondary">
          {t('bike.record')}
        </Typography>
        <Box>
          {may(session.person.role, 'customers') && record.mergedInto === null && (
            <>
              <Button onClick={() => setOpen('twin')}>{t('bike.twin')}</Button>
              <Button onClick={() => setOpen('pass')}>{t('customer.pass')}</Button>
            </>
          )}
          <Allowed right="customers">
            <Button onClick={() => setOpen('edit')}>{t('bike.edit')}</Button>
          </Allowed>
        </Box>
      </Stack>
      <Box
        component="dl"
        sx={{
          m: 0,
          display: 'grid',
          gridTemplateColumns: '110px 1fr',
          '& > *': { py: 0.6, borderTop: 1, borderColor: 'divider', m: 0 },
        }}
      >
        {facts.map(([name, value]) => (
          <Box key={name} sx={{ display: 'contents' }}>
            <Typography
              component="dt"
              variant="body2"
              color="textSecondary"
              sx={{ borderTop: 1, borderColor: 'divider', py: 0.6 }}
            >
              {name}
            </Typography>
            <Typography
              component="dd"
              variant="body2"
              sx={{ borderTop: 1, borderColor: 'divider', py: 0.6, m: 0, whiteSpace: 'pre-wrap' }}
            >
              {value}
            </Typography>
          </Box>
        ))}
      </Box>
      {open === 'pass' && <PassDialog record={record} onClose={close} />}
      {open === 'twin' && <TwinDialog record={record} onClose={close} />}
      {open === 'edit' && <BikeDialog record={record} onClose={close} />}
    </Box>
  )
}
