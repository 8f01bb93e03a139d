import { Button, MenuItem, Stack, TextField } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { BikeRecord, RuleChange } from '@pelrin/contract'
import { useHouseRules } from '../../api/queries.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { ChangePanel } from '../house-rules/ChangePanel.tsx'
import { MarkedBy } from '../house-rules/MarkedBy.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'
import { ruleName } from '../house-rules/ruleName.ts'

const SHOPS = 'shop'

/** Which rule judges this bike, and a way to give it (or all of its customer's) another. */
export function RuleChoice({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  const { ownRuleId, customerRuleId } = record.ruleChoice
  return (
    <>
      {t(`school.${record.verdictInput?.rule.school ?? 'by-speeds'}`)}
      {ownRuleId !== null
        ? ` (${t('rules.forBike')})`
        : customerRuleId !== null && ` (${t('rules.forCustomer', { customer: record.customer.name })})`}{' '}
      <Allowed right="owner">
        <Button size="small" onClick={() => setOpen(true)} sx={{ minHeight: 32, px: 0.75 }}>
          {t('rules.choose')}
        </Button>
      </Allowed>
      {open && <ChoiceDialog record={record} onClose={() => setOpen(false)} />}
    </>
  )
}

function ChoiceDialog({ record, onClose }: { record: BikeRecord; onClose: () => void }) {
  const { t } = useTranslation()
  const rules = useHouseRules()
  const { ownRuleId, customerRuleId, markedInstrumentId, customerMarkedInstrumentId } = record.ruleChoice
  const [whose, setWhose] = useState<'bike' | 'customer'>('bike')
  const before = (whose === 'bike' ? ownRuleId : customerRuleId) ?? SHOPS
  const [chosen, setChosen] = useState<string>(before)
  const markedBefore = (whose === 'bike' ? markedInstrumentId : customerMarkedInstrumentId) ?? ''
  const [marked, setMarked] = useState(markedBefore)
  const rule = rules.data?.rules.find(({ id }) => id === chosen)
  const needsMark = rule?.school === 'as-marked'
  const ruleId = chosen === SHOPS ? null : chosen
  const same = chosen === before && (!needsMark || marked === markedBefore)
  const change: RuleChange | null =
    same || (needsMark && marked === '')
      ? null
      : whose === 'bike'
        ? { kind: 'bike', bikeId: record.summary.id, ruleId, markedInstrumentId: needsMark ? marked : null }
        : {
            kind: 'customer',
            customerId: record.customer.id,
            ruleId,
            markedInstrumentId: needsMark ? marked : null,
          }
  return (
    <SheetDialog open onClose={onClose} title={t('rules.chooseTitle')} maxWidth="sm" fullWidth>
      <Stack sx={{ gap: 2, pt: 1 }}>
        <Stack direction="row" sx={{ gap: 1.5 }}>
          <TextField
            select
            label={t('rules.ruleOfBike')}
            value={chosen}
            onChange={(event) => setChosen(event.target.value)}
            sx={{ flex: 1 }}
          >
            <MenuItem value={SHOPS}>{t('rules.inherits')}</MenuItem>
            {rules.data?.rules
              .filter((one) => !one.retired)
              .map((one) => (
                <MenuItem key={one.id} value={one.id}>
                  {ruleName(rules.data, one.id, t)}
                </MenuItem>
              ))}
          </TextField>
          <TextField
            select
            label={' '}
            value={whose}
            onChange={(event) => setWhose(event.target.value as typeof whose)}
            sx={{ flex: 1 }}
            slotProps={{ htmlInput: { 'aria-label': t('rules.tab.exceptions') } }}
          >
            <MenuItem value="bike">{t('rules.forBike')}</MenuItem>
            <MenuItem value="customer">{t('rules.forCustomer', { customer: record.customer.name })}</MenuItem>
          </TextField>
        </Stack>
        {needsMark && <MarkedBy value={marked} onChange={setMarked} />}
        <ChangePanel change={change} onDone={onClose} />
      </Stack>
    </SheetDialog>
  )
}
