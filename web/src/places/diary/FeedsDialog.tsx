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
import { RefusedElsewhere } from '../../forms/FormFoot.tsx'
import { FormOf } from '../../forms/FormOf.tsx'
import { Line } from '../../forms/Line.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { day } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

/** The addresses calendar programs ask by: made, told once, revoked. */
export function FeedsDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const feeds = useQuery({ queryKey: keys.feeds, queryFn: ({ signal }) => ask(endpoints.calendarFeeds, { signal }) })
  const [told, setTold] = useState<string | null>(null)
  const { wrong, busy, write } = useWrite({ access: endpoints.makeFeed.access })
  const form = useWriteForm({
    access: endpoints.makeFeed.access,
    schema: endpoints.makeFeed.body,
    start: { name: '' },
    read: ({ name }, id) => ({ id, name: name.trim() }),
    send: (body) => ask(endpoints.makeFeed, { body }),
    done: ({ path, feeds: after }) => {
      setTold(`${window.location.origin}${path}`)
      form.fields.reset()
      void showAnswer(client, keys.feeds, after)
    },
  })
  const revoke = (id: string): void =>
    void write(async () => {
      await showAnswer(client, keys.feeds, await ask(endpoints.revokeFeed, { params: { id }, key: v7() }))
      setTold(null)
    })
  return (
    <SheetDialog open onClose={onClose} title={t('diary.feedsTitle')} maxWidth="md" fullWidth>
      <Typography color="textSecondary">{t('diary.feedsNote')}</Typography>
      <FormOf form={form} sx={{ display: 'flex', gap: 1.5, py: 2, alignItems: 'flex-start' }}>
        <Line name="name" label={t('diary.feedName')} autoFocus sx={{ flex: 1 }} />
        <Allowed right="diary">
          <Button type="submit" variant="contained" disabled={form.busy} sx={{ height: 56 }}>
            {t('diary.feedMake')}
          </Button>
        </Allowed>
        <RefusedElsewhere form={form} />
      </FormOf>
      <Refused>{wrong?.sentence}</Refused>
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
            <Allowed right="diary">
              <Button color="error" disabled={busy} onClick={() => revoke(feed.id)}>
                {t('diary.feedRevoke')}
              </Button>
            </Allowed>
          </Stack>
        ))}
      </Box>
    </SheetDialog>
  )
}
