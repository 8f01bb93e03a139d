import { Box, Button, TextField, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { REMINDER_FIELDS, templateProblem } from '@pelrin/core'
import { endpoints, type ReminderTemplate } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useDiary } from '../../api/queries.ts'
import { remindable } from './remindable.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { problemText } from '../../messages/said.ts'

/** What reminders in a language say, seen on real data while it is written. */
export function TemplateEditor({
  template,
  busy,
  wrong,
  onSave,
}: {
  template: ReminderTemplate
  busy: boolean
  /** What the server said of it. */
  wrong: string | null
  onSave: (text: string) => void
}) {
  const { t } = useTranslation()
  const { language } = template
  const [text, setText] = useState(template.text)
  const diary = useDiary()
  const visits = (diary.data?.visits ?? []).map(remindable)
  const problem = templateProblem(text)
  const example = useQuery({
    queryKey: [...keys.messages, 'example', language, text, visits.length],
    queryFn: ({ signal }) =>
      ask(endpoints.previewReminders, { body: { visits: visits.slice(0, 300), template: { language, text } }, signal }),
    enabled: problem === null && visits.length > 0,
    placeholderData: (before) => before,
  })
  const shown = example.data?.previews.find((one) => one.language === language)
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        if (problem === null) onSave(text)
      }}
      sx={{ pt: 1.5 }}
    >
      <TextField
        fullWidth
        multiline
        minRows={3}
        label={t('reminding.template', { language: t(`reminding.language.${language}`) })}
        value={text}
        onChange={(event) => setText(event.target.value)}
        error={problem !== null || wrong !== null}
        helperText={
          problem !== null
            ? problemText(t, problem.code, problem.code === 'template-field' ? { field: problem.field } : {})
            : (wrong ?? t('reminding.fields', { list: REMINDER_FIELDS.join(', ') }))
        }
        slotProps={{ htmlInput: { lang: language } }}
      />
      <Typography variant="body2" color="textSecondary" lang={language}>
        {shown ? `${t('reminding.example', { name: shown.customer.name })}: ${shown.text}` : t('reminding.exampleNone')}
      </Typography>
      <Allowed right="messages">
        <Button
          type="submit"
          variant="outlined"
          disabled={busy || problem !== null || text === template.text}
          sx={{ mt: 1 }}
        >
          {t('reminding.save')}
        </Button>
      </Allowed>
    </Box>
  )
}
