import { Box, Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { HouseRules, RuleChange } from '@pelrin/contract'
import { rhythmText } from '../../pieces/rhythmText.ts'
import { Empty } from '../../pieces/States.tsx'
import { ChangePanel } from './ChangePanel.tsx'
import { ruleName } from './ruleName.ts'

interface Exception {
  readonly key: string
  /** Where it is a bike's own. */
  readonly bikeId: string | null
  readonly title: string
  readonly what: string
  readonly undo: string
  readonly change: RuleChange
}

/** Customers and bikes judged by another rule, or looked at in another rhythm, than the shop's. Given on the bike's record. */
export function Exceptions({ rules, onDone }: { rules: HouseRules; onDone: () => void }) {
  const { t } = useTranslation()
  const [undone, setUndone] = useState<string | null>(null)
  const exceptions: Exception[] = [
    ...rules.exceptions.map(({ customerId, customer, bikeId, bike, ruleId, markedInstrument }): Exception => ({
      key: `rule ${bikeId ?? customerId}`,
      bikeId,
      title: bikeId === null ? t('rules.everyBikeOf', { customer }) : `${customer}, ${bike}`,
      what: `${ruleName(rules, ruleId, t)}${markedInstrument === null ? '' : `, ${markedInstrument}`}`,
      undo: t('rules.toShops'),
      change:
        bikeId === null
          ? { kind: 'customer', customerId, ruleId: null }
          : { kind: 'bike', bikeId, ruleId: null, markedInstrumentId: null },
    })),
    ...rules.rhythms.map(({ customerId, customer, ...rhythm }): Exception => ({
      key: `rhythm ${customerId}`,
      bikeId: null,
      title: t('rules.everyBikeOf', { customer }),
      what: `${t('rules.rhythm')}: ${rhythmText(rhythm, t)}`,
      undo: t('rules.rhythmToShops'),
      change: { kind: 'rhythm', customerId, days: null, eachVisit: false },
    })),
  ]
  if (exceptions.length === 0) return <Empty>{t('rules.noExceptions')}</Empty>
  const change = exceptions.find(({ key }) => key === undone)?.change ?? null
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' }, gap: 3 }}>
      <Box>
        {exceptions.map(({ key, bikeId, title, what, undo }) => (
          <Stack
            key={key}
            direction="row"
            sx={{ borderTop: 1, borderColor: 'divider', py: 0.75, gap: 2, alignItems: 'center' }}
          >
            <Box sx={{ flex: 1 }}>
              {bikeId === null ? (
                <Typography>{title}</Typography>
              ) : (
                <Typography component={Link} to={`/bikes/${bikeId}`} sx={{ color: 'inherit' }}>
                  {title}
                </Typography>
              )}
              <Typography variant="body2" color="textSecondary">
                {what}
              </Typography>
            </Box>
            <Button variant={undone === key ? 'contained' : 'outlined'} onClick={() => setUndone(key)}>
              {undo}
            </Button>
          </Stack>
        ))}
      </Box>
      <ChangePanel
        key={JSON.stringify(change)}
        change={change}
        onDone={() => {
          setUndone(null)
          onDone()
        }}
      />
    </Box>
  )
}
