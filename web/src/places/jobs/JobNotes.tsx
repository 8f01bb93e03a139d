import { Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { JobEvent } from '@pelrin/contract'
import { clock } from '../../messages/format.ts'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import type { Said } from './useJob.ts'
import { useCommands } from '../../keys/useCommands.ts'

/** What was noted on a job, and a way to note more: for whoever takes over. */
export function JobNotes({ events, say }: { events: readonly JobEvent[]; say: (said: Said) => void }) {
  const { t } = useTranslation()
  const [text, setText] = useState<string | null>(null)
  useCommands('jobNotes', { note: () => setText('') })
  return (
    <Stack component="section" aria-label={t('jobs.notes')} sx={{ gap: 0.5 }}>
      {events.map(
        (event) =>
          event.kind === 'note' && (
            <Typography key={event.id} variant="body2">
              <b>{event.by}</b> {clock(new Date(event.at).toISOString())}: {event.text}
            </Typography>
          ),
      )}
      {text === null ? (
        <KeyButton
          of="jobNotes.note"
          variant="text"
          onClick={() => setText('')}
          sx={{ alignSelf: 'flex-start', px: 1 }}
        >
          {t('jobs.note')}
        </KeyButton>
      ) : (
        <form
          noValidate
          onSubmit={(event) => {
            event.preventDefault()
            if (text.trim() !== '') say({ kind: 'note', text: text.trim() })
            setText(null)
          }}
        >
          <TextField
            autoFocus
            fullWidth
            label={t('jobs.noteField')}
            value={text}
            slotProps={{ htmlInput: { maxLength: 400 } }}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              event.stopPropagation()
              if (event.key === 'Escape') setText(null)
            }}
          />
        </form>
      )}
    </Stack>
  )
}
