import { Box, Button, MenuItem, Stack, TextField, Typography } from '@mui/material'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { PART_KINDS, type PartKind } from '@pelrin/core'
import { endpoints, type DriveSystem, type PartCells } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { PartFields } from './PartFields.tsx'
import { usePartWrite } from './usePartWrite.ts'

/** What most parts of a kind are: to be corrected where this one differs. */
const BEGUN: Readonly<Partial<Record<PartKind, PartCells>>> = {
  chain: { profile: 'plain', roller: 'standard', coating: 'plain', joints: 'link', inBox: '116', jointInBox: 'link' },
  link: { profile: 'plain', roller: 'standard', reuse: 'once', openedBy: 'pliers' },
  pin: { profile: 'plain', roller: 'standard', reuse: 'once', openedBy: 'never' },
  clip: { profile: 'plain', roller: 'standard', reuse: 'firm', openedBy: 'hand', speeds: '1' },
  ring: { width: '3/32' },
  derailleur: { pulleys: '11 11' },
}

/** A new part, all of it in one form. */
export function AddPartDialog({
  systems,
  onAdded,
  onClose,
}: {
  systems: readonly DriveSystem[]
  onAdded: (id: string) => void
  onClose: () => void
}) {
  const { t } = useTranslation()
  const [id] = useState(() => v7())
  const [kind, setKind] = useState<PartKind>('chain')
  const [typed, setTyped] = useState<PartCells>({})
  const { wrong, at, setWrong, busy, write } = usePartWrite()
  const cells: PartCells = { ...BEGUN[kind], ...typed, kind }
  const save = async (): Promise<void> => {
    if (await write(() => ask(endpoints.addPart, { key: v7(), body: { id, cells } }))) onAdded(id)
  }
  return (
    <SheetDialog open onClose={onClose} title={t('catalogue.addTitle')} maxWidth="md" fullWidth>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <TextField
          select
          label={t('catalogue.kindField')}
          value={kind}
          onChange={(event) => setKind(event.target.value as PartKind)}
          sx={{ my: 1.5, minWidth: 220 }}
        >
          {PART_KINDS.map((one) => (
            <MenuItem key={one} value={one} sx={{ minHeight: 48 }}>
              {t(`catalogue.kind.${one}`)}
            </MenuItem>
          ))}
        </TextField>
        <PartFields
          kind={kind}
          cells={cells}
          wrong={wrong?.fields ?? {}}
          systems={systems}
          withStock
          onChange={(field, value) => {
            setTyped({ ...typed, [field]: value })
            setWrong(null)
          }}
        />
        <Stack direction="row" sx={{ justifyContent: 'flex-end', alignItems: 'center', gap: 2, pt: 2 }}>
          {at('') !== undefined && (
            <Typography role="alert" color="error">
              {at('')}
            </Typography>
          )}
          <Button type="submit" variant="contained" disabled={busy} sx={{ px: 4 }}>
            {t('catalogue.save')}
          </Button>
        </Stack>
      </Box>
    </SheetDialog>
  )
}
