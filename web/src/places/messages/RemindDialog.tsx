import { Box, Button, Checkbox, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { clock, day } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import type { VisitToRemind } from './remindable.ts'
import { Refused } from '../../forms/Refused.tsx'
import { Allowed } from '../../pieces/Allowed.tsx'

/** Reminders of due visits as they would go out: ticked, read, sent. Those that cannot go out say why. */
export function RemindDialog({ asked, onClose }: { asked: readonly VisitToRemind[]; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set())
  const [openedAt] = useState(() => Date.now())
  const { wrong, busy, write } = useWrite({
    access: endpoints.sendReminders.access,
    stale: [keys.messages, keys.diary],
  })
  const previews = useQuery({
    queryKey: [...keys.messages, 'preview', asked],
    queryFn: ({ signal }) => ask(endpoints.previewReminders, { body: { visits: [...asked] }, signal }),
  })
  const all = previews.data?.previews ?? []
  const chosen = asked.filter((_, i) => !left.has(i) && all[i]?.problem === null)
  const sendAfter = all[0]?.sendAfter
  const send = async (): Promise<void> => {
    if (busy || chosen.length === 0) return
    const sent = await write(() => ask(endpoints.sendReminders, { key: v7(), body: { visits: chosen } }))
    if (!sent) return
    tell(t('reminding.sent', { count: sent.written }))
    onClose()
  }
  return (
    <SheetDialog open onClose={onClose} title={t('reminding.remindTitle')} maxWidth="md" fullWidth>
      {previews.isPending && <Loading />}
      {previews.isError && <Failure error={previews.error} again={() => void previews.refetch()} />}
      {previews.data && (
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault()
            void send()
          }}
        >
          <Typography color="textSecondary">
            {t('reminding.remindNote')}
            {sendAfter !== undefined &&
              Date.parse(sendAfter) > openedAt + 60_000 &&
              ` ${t('reminding.quiet', { time: clock(sendAfter) })}`}
          </Typography>
          <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, py: 1 }}>
            {all.map(({ customer, day: on, text, problem, language, channel, phone, email }, i) => (
              <Box component="li" key={`${customer.id} ${on}`} sx={{ borderTop: 1, borderColor: 'divider' }}>
                <Box
                  component="label"
                  sx={{ display: 'flex', alignItems: 'flex-start', gap: 1, py: 0.75, cursor: 'pointer' }}
                >
                  <Checkbox
                    checked={problem === null && !left.has(i)}
                    disabled={problem !== null}
                    onChange={() =>
                      setLeft((before) => {
                        const after = new Set(before)
                        if (!after.delete(i)) after.add(i)
                        return after
                      })
                    }
                  />
                  <Box component="span" sx={{ pt: 0.5 }}>
                    <Typography component="span" sx={{ display: 'block', fontWeight: 700 }}>
                      {customer.name}, {day(on)}
                      {problem !== null && `: ${t(`reminding.problem.${problem}`)}`}
                    </Typography>
                    {problem === null && (
                      <Typography component="span" variant="body2" sx={{ display: 'block' }}>
                        {channel === 'mail'
                          ? t('reminding.toAddress', { to: email ?? '' })
                          : t('reminding.toNumber', { to: phone ?? '' })}
                      </Typography>
                    )}
                    <Typography component="span" variant="body2" color="textSecondary" lang={language}>
                      {text}
                    </Typography>
                  </Box>
                </Box>
              </Box>
            ))}
          </Box>
          <Refused>{wrong?.sentence}</Refused>
          <Allowed right="messages">
            <Button
              type="submit"
              autoFocus
              variant="contained"
              disabled={busy || chosen.length === 0}
              sx={{ minHeight: 56 }}
            >
              {chosen.length === 0 ? t('reminding.remindNone') : t('reminding.remindGo', { count: chosen.length })}
            </Button>
          </Allowed>
        </Box>
      )}
    </SheetDialog>
  )
}
