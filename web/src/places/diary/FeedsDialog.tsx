import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { day } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'

/** The addresses calendar programs ask by: made, told once, revoked. */
export function FeedsDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const feeds = useQuery({ queryKey: keys.feeds, queryFn: ({ signal }) => ask(endpoints.calendarFeeds, { signal }) })
  const [name, setName] = useState('')
  const [told, setTold] = useState<string | null>(null)
  const { wrong, busy, write } = useWrite()
  const go = async (job: () => Promise<void>): Promise<void> => {
    if (!busy) await write(job)
  }
  const make = () =>
    go(async () => {
      const made = await ask(endpoints.makeFeed, { body: { id: v7(), name: name.trim() } })
      setTold(`${window.location.origin}${made.path}`)
      setName('')
      await showAnswer(client, keys.feeds, made.feeds)
    })
  const revoke = (id: string) =>
    go(async () => {
      await showAnswer(client, keys.feeds, await ask(endpoints.revokeFeed, { params: { id }, key: v7() }))
      setTold(null)
    })
  return (
    <SheetDialog open onClose={onClose} title={t('diary.feedsTitle')} maxWidth="md" fullWidth>
      <Typography color="textSecondary">{t('diary.feedsNote')}</Typography>
      <Stack
        component="form"
        direction="row"
        sx={{ gap: 1.5, py: 2, alignItems: 'flex-start' }}
        onSubmit={(event) => {
          event.preventDefault()
          void make()
        }}
      >
        <TextField
          autoFocus
          label={t('diary.feedName')}
          value={name}
          onChange={(event) => setName(event.target.value)}
          error={wrong !== null}
          helperText={wrong?.sentence ?? ' '}
          sx={{ flex: 1 }}
        />
        <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 56 }}>
          {t('diary.feedMake')}
        </Button>
      </Stack>
      {told !== null && (
        <Box role="status" sx={{ pb: 2 }}>
          <Typography sx={{ fontWeight: 700 }}>{t('diary.feedTold')}</Typography>
          <TextField
            fullWidth
            value={told}
            slotProps={{ htmlInput: { readOnly: true, 'aria-label': t('diary.feeds') } }}
            onFocus={(event) => event.target.select()}
          />
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {(feeds.data ?? []).map((feed) => (
          <Stack
            component="li"
            key={feed.id}
            direction="row"
            sx={{ alignItems: 'center', borderTop: 1, borderColor: 'divider', minHeight: 52 }}
          >
            <Typography sx={{ flex: 1 }}>
              {t('diary.feedOf', { name: feed.name, date: day(feed.madeAt), person: feed.person })}
            </Typography>
            <Button color="error" disabled={busy} onClick={() => void revoke(feed.id)}>
              {t('diary.feedRevoke')}
            </Button>
          </Stack>
        ))}
      </Box>
    </SheetDialog>
  )
}
