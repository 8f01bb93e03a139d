import { Box, Button, Stack, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import type { HouseRules, RuleChange } from '@pelrin/contract'
import { Empty } from '../../pieces/States.tsx'
import { ChangePanel } from './ChangePanel.tsx'
import { ruleName } from './ruleName.ts'

/** Customers and bikes judged by another rule than the shop's. One is given on the bike's own record. */
export function Exceptions({ rules, onDone }: { rules: HouseRules; onDone: () => void }) {
  const { t } = useTranslation()
  const [undone, setUndone] = useState<HouseRules['exceptions'][number] | null>(null)
  if (rules.exceptions.length === 0) return <Empty>{t('rules.noExceptions')}</Empty>
  const change: RuleChange | null =
    undone === null
      ? null
      : undone.bikeId === null
        ? { kind: 'customer', customerId: undone.customerId, ruleId: null }
        : { kind: 'bike', bikeId: undone.bikeId, ruleId: null, markedInstrumentId: null }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' }, gap: 3 }}>
      <Box>
        {rules.exceptions.map((one) => (
          <Stack
            key={`${one.customerId}${one.bikeId ?? ''}`}
            direction="row"
            sx={{ borderTop: 1, borderColor: 'divider', py: 0.75, gap: 2, alignItems: 'center' }}
          >
            <Box sx={{ flex: 1 }}>
              {one.bikeId === null ? (
                <Typography>{t('rules.everyBikeOf', { customer: one.customer })}</Typography>
              ) : (
                <Typography component={Link} to={`/bikes/${one.bikeId}`} sx={{ color: 'inherit' }}>
                  {one.customer}, {one.bike}
                </Typography>
              )}
              <Typography variant="body2" color="textSecondary">
                {ruleName(rules, one.ruleId, t)}
                {one.markedInstrument !== null && `, ${one.markedInstrument}`}
              </Typography>
            </Box>
            <Button variant={undone === one ? 'contained' : 'outlined'} onClick={() => setUndone(one)}>
              {t('rules.toShops')}
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
