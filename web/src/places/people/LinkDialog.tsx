import { Box, Button, Stack, TextField, Typography } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { QRCodeSVG } from 'qrcode.react'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, type Colleague, type Output } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Refused } from '../../forms/Refused.tsx'
import { clock, day } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { Loading } from '../../pieces/States.tsx'

/** A one-time link for somebody, to be scanned from this screen or sent to them. Made as this opens; the one before ends. */
export function LinkDialog({ person: { id, name }, onClose }: { person: Colleague; onClose: () => void }) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const client = useQueryClient()
  const [made, setMade] = useState<Output<typeof endpoints.invitePerson.result> | null>(null)
  const { wrong, write } = useWrite({ access: endpoints.invitePerson.access })
  const asked = useRef(false)
  useEffect(() => {
    if (asked.current) return
    asked.current = true
    void write(() => ask(endpoints.invitePerson, { params: { id } })).then((invitation) => {
      setMade(invitation)
      void client.invalidateQueries({ queryKey: keys.people })
    })
  }, [client, id, write])
  const link = made && `${window.location.origin}/welcome#${made.token}`
  const copy = async (): Promise<void> => {
    if (link === null) return
    await navigator.clipboard.writeText(link)
    tell(t('people.linkCopied'))
  }
  return (
    <SheetDialog open onClose={onClose} title={t('people.link', { name })} maxWidth="sm" fullWidth>
      <Stack sx={{ gap: 2, pt: 1 }}>
        {made && link !== null ? (
          <>
            <Typography>{t('people.linkNote', { day: day(made.expiresAt), time: clock(made.expiresAt) })}</Typography>
            <Box sx={{ alignSelf: 'center', bgcolor: '#fff', p: 1.5 }}>
              <QRCodeSVG value={link} size={220} title={t('people.link', { name })} />
            </Box>
            <TextField
              value={link}
              label={t('people.link', { name })}
              slotProps={{
                htmlInput: { readOnly: true, onFocus: (event: { target: HTMLInputElement }) => event.target.select() },
              }}
            />
            <Button variant="outlined" autoFocus onClick={() => void copy()} sx={{ minHeight: 56 }}>
              {t('people.linkCopy')}
            </Button>
          </>
        ) : wrong ? (
          <Refused>{wrong.sentence}</Refused>
        ) : (
          <Loading />
        )}
      </Stack>
    </SheetDialog>
  )
}
