import { Box, Button, Stack, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { endpoints, may, type Message, type SentMessages } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useMessagesSent } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { ago } from '../../messages/format.ts'
import { Beside } from '../../pieces/Beside.tsx'
import { ChoiceField } from '../../pieces/ChoiceField.tsx'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useInAddress } from '../../pieces/useInAddress.ts'
import { useTitle } from '../../pieces/useTitle.ts'
import { MessageRow } from './MessageRow.tsx'
import { ink } from '../../theme/theme.ts'
import { TemplateEditor } from './TemplateEditor.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'
import { EmptyNext } from '../../pieces/EmptyNext.tsx'

const SORTS = ['visit', 'customer', 'state'] as const
type Sort = (typeof SORTS)[number]
/** What asks for somebody's hand stands first. */
const STATES: readonly Message['state'][] = [
  'failed',
  'refused',
  'unsure',
  'sending',
  'waiting',
  'sent',
  'delivered',
  'called-off',
]
const by: Record<Sort, (a: Message, b: Message) => number> = {
  visit: (a, b) => a.visitDay.localeCompare(b.visitDay),
  customer: (a, b) => a.customer.name.localeCompare(b.customer.name),
  state: (a, b) => STATES.indexOf(a.state) - STATES.indexOf(b.state),
}
/** What can be done with one message, and what is said once it is. */
const ACTS = {
  callOff: { endpoint: endpoints.callOffReminder, said: 'reminding.state.called-off' },
  again: { endpoint: endpoints.sendAgain, said: 'reminding.againDone' },
  cameBack: { endpoint: endpoints.cameBack, said: 'reminding.cameBackDone' },
} as const
const inOrder = (messages: readonly Message[], sort: Sort | undefined): readonly Message[] =>
  sort === undefined ? messages : messages.toSorted(by[sort])

/** Reminders and what became of them, what was answered, and what they say. */
export function MessagesPlace() {
  const { t } = useTranslation()
  const outbox = useMessagesSent()
  useTitle(t('reminding.title'))
  if (outbox.isPending) return <Loading />
  if (!outbox.data) return <Failure error={outbox.error} again={() => void outbox.refetch()} />
  return <Sent outbox={outbox.data} />
}

function Sent({ outbox }: { outbox: SentMessages }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const navigate = useNavigate()
  const { session, tell } = useSurroundings()
  const { busy, wrong: refused, write: send } = useWrite({ access: endpoints.sendAgain.access })
  const [writtenOf, setWrittenOf] = useState('')
  const wrong = refused && { of: writtenOf, sentence: refused.sentence }
  const write = async (of: string, job: () => Promise<SentMessages>, said: string): Promise<void> => {
    if (busy) return
    setWrittenOf(of)
    const written = await send(
      async () => {
        await showAnswer(client, keys.messages, await job())
        return true
      },
      () => {
        // Somebody else may have been first: what they did is shown.
        void client.invalidateQueries({ queryKey: keys.messages })
        return false
      },
    )
    if (written) tell(said)
  }
  const [said, setSort] = useInAddress('sort')
  const sort = SORTS.find((option) => option === said)
  useCommands('messages', { back: () => navigate('/diary') })
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5 }}>
      <Beside
        width={460}
        beside={
          <>
            <Typography variant="h2">{t('reminding.templates')}</Typography>
            {outbox.templates.map((template) => (
              <TemplateEditor
                key={`${template.language} ${template.version}`}
                template={template}
                busy={busy}
                wrong={wrong?.of === template.language ? wrong.sentence : null}
                onSave={(text) =>
                  void write(
                    template.language,
                    () =>
                      ask(endpoints.changeTemplate, {
                        params: { id: template.language },
                        version: template.version,
                        body: { text },
                      }),
                    t('reminding.saved'),
                  )
                }
              />
            ))}
            <Typography variant="h2" sx={{ pt: 2 }}>
              {t('reminding.replies')}
            </Typography>
            {outbox.replies.length === 0 && <Typography color="textSecondary">{t('reminding.repliesNone')}</Typography>}
            <Box component="ol" aria-label={t('reminding.replies')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {outbox.replies.map(({ number, customer, text, at }) => (
                <Box component="li" key={number} sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
                  <Typography sx={{ fontWeight: 700 }}>
                    {customer.name}, {ago(at)}
                  </Typography>
                  <Typography>{text}</Typography>
                </Box>
              ))}
            </Box>
          </>
        }
      >
        <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
          <Typography variant="h1" sx={{ flex: 1 }}>
            {t('reminding.title')}
          </Typography>
          <Button component={Link} to="/diary" variant="outlined">
            {t('reminding.toDiary')}
          </Button>
        </Stack>
        {!outbox.sending.text && !outbox.sending.mail && (
          <Stack direction="row" sx={{ alignItems: 'center', gap: 2, flexWrap: 'wrap' }}>
            <Typography sx={{ color: ink('brass'), fontWeight: 600 }}>{t('reminding.sendingNone')}</Typography>
            {may(session.person.role, 'owner') && (
              <Button component={Link} to="/house-rules?tab=mail" variant="contained">
                {t('reminding.setUp')}
              </Button>
            )}
          </Stack>
        )}
        <Refused>{wrong?.of === 'message' ? wrong.sentence : undefined}</Refused>
        {outbox.messages.length === 0 ? (
          <EmptyNext next={{ says: t('reminding.toDiary'), to: '/diary' }}>{t('reminding.none')}</EmptyNext>
        ) : (
          <Box data-no-print sx={{ pt: 1, pb: 0.5 }}>
            <ChoiceField
              label={t('reminding.sortBy')}
              none={t('reminding.newest')}
              value={sort}
              options={SORTS}
              said={(option) => t(`reminding.sort.${option}`)}
              onChoose={setSort}
              width={230}
            />
          </Box>
        )}
        <Box component="ol" aria-label={t('reminding.outbox')} sx={{ listStyle: 'none', m: 0, p: 0, pb: 2 }}>
          {inOrder(outbox.messages, sort).map((message) => (
            <MessageRow
              key={message.id}
              message={message}
              busy={busy}
              onAct={(act) =>
                void write(
                  'message',
                  () => ask(ACTS[act].endpoint, { params: { id: message.id }, key: v7() }),
                  t(ACTS[act].said),
                )
              }
            />
          ))}
        </Box>
      </Beside>
    </Stack>
  )
}
