import { FormControlLabel, Radio, RadioGroup, Typography } from '@mui/material'
import { useController } from 'react-hook-form'
import { useTranslation } from 'react-i18next'
import { endpoints, type HouseRules } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { percent } from '../../messages/format.ts'

/** Which school the shop judges by; "as marked" waits for an instrument with a mark, under House rules. */
export function JudgedByDialog({ rules, onClose }: { rules: HouseRules; onClose: () => void }) {
  const { t } = useTranslation()
  const offered = rules.rules.filter(({ school, retired }) => !retired && school !== 'as-marked' && school !== 'custom')
  const form = useWriteForm({
    access: endpoints.changeRules.access,
    stale: [keys.houseRules],
    start: { ruleId: offered.find(({ isDefault }) => isDefault)?.id ?? '' },
    read: ({ ruleId }, id) => ({ id, change: { kind: 'default' as const, ruleId }, reason: t('firstDay.reason') }),
    schema: endpoints.changeRules.body,
    send: (body, { id }) => ask(endpoints.changeRules, { body, key: id, long: true }),
    done: onClose,
  })
  const { field } = useController({ control: form.fields.control, name: 'ruleId' })
  return (
    <FormDialog form={form} title={t('firstDay.step.judged')} go={t('firstDay.judge')} onClose={onClose}>
      <RadioGroup aria-label={t('firstDay.step.judged')} value={field.value} onChange={(_, to) => field.onChange(to)}>
        {offered.map(({ id, school, limits }, i) => (
          <FormControlLabel
            key={id}
            value={id}
            control={<Radio autoFocus={i === 0} sx={{ mr: 0.75 }} />}
            sx={{ alignItems: 'flex-start', mb: 1 }}
            label={
              <>
                <Typography sx={{ fontWeight: 700 }}>
                  {t(`school.${school}`)}: {percent(limits['derailleur-11-up'].change)} /{' '}
                  {percent(limits['derailleur-to-10'].change)} / {percent(limits['single-or-hub'].change)} %
                </Typography>
                <Typography color="textSecondary">{t(`rules.why.${school}`)}</Typography>
              </>
            }
          />
        ))}
      </RadioGroup>
      <Typography variant="body2" color="textSecondary">
        {t('firstDay.judgeNote')}
      </Typography>
    </FormDialog>
  )
}
