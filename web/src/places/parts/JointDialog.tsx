import {
  Box,
  Button,
  ButtonBase,
  MenuItem,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { chainSpeeds, speedsMatch } from '@pelrin/core'
import { endpoints, type BikeParts, type JointModel } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useWrite, wrongAt } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { KeyCap } from '../../pieces/KeyCap.tsx'
import { JointDrawing, type JointLook } from '../../pieces/JointDrawing.tsx'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { ink } from '../../theme/theme.ts'

const LOOKS: readonly JointLook[] = ['link', 'pin', 'riveted', 'clip']

/** What is the chain on this bike closed with? Told by drawings, by number key or thumb; then what more is known of it. */
export function JointDialog({
  bikeId,
  parts,
  joints,
  onClose,
}: {
  bikeId: string
  parts: BikeParts
  joints: readonly JointModel[]
  onClose: () => void
}) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const [look, setLook] = useState<JointLook | null>(parts.present?.kind ?? null)
  const [partId, setPartId] = useState(parts.present?.model?.id ?? '')
  const [closings, setClosings] = useState(parts.present?.closings == null ? '' : String(parts.present.closings))
  const [firm, setFirm] = useState<boolean | null>(parts.present?.firm ?? null)
  const { at, setWrong, write } = useWrite({ stale: [keys.parts(bikeId)] })
  const choose = (next: JointLook): void => {
    setLook(next)
    setPartId('')
  }
  useHotkeys(
    '1, 2, 3, 4',
    (event) => {
      const found = LOOKS[Number(event.key) - 1]
      if (found) choose(found)
    },
    { preventDefault: true },
  )
  const speeds = chainSpeeds(parts.drive)
  const candidates = joints
    .filter(({ kind, speeds: made }) => kind === look && speedsMatch(made, speeds))
    .sort((a, b) => (`${a.maker} ${a.name}` < `${b.maker} ${b.name}` ? -1 : 1))
  const save = async (): Promise<void> => {
    if (look === null) return
    const typed = closings.trim()
    if (typed !== '' && !/^\d+$/.test(typed)) {
      setWrong(wrongAt({ closings: t('problems.closings-range') }))
      return
    }
    const counted = look === 'link' || look === 'clip'
    const body = {
      id: v7(),
      kind: look,
      partId: partId === '' ? null : partId,
      closings: counted && typed !== '' ? Number(typed) : null,
      firm: counted ? firm : null,
    }
    const seen = () => ask(endpoints.seeJoint, { params: { id: bikeId }, key: v7(), body })
    if (!(await write(() => seen().then(() => true)))) return
    tell(t('parts.saved'))
    onClose()
  }
  return (
    <SheetDialog open onClose={onClose} title={t('parts.joint.title')} maxWidth="md" fullWidth>
      <Box
        component="form"
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <Typography sx={{ mb: 1.5 }}>{t('parts.joint.lead')}</Typography>
        <Box
          role="radiogroup"
          aria-label={t('parts.joint.title')}
          sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(4, 1fr)' }, gap: 1.5 }}
        >
          {LOOKS.map((one, i) => (
            <ButtonBase
              key={one}
              role="radio"
              aria-checked={look === one}
              onClick={() => choose(one)}
              sx={{
                display: 'flex',
                flexDirection: 'column',
                justifyContent: 'flex-start',
                alignItems: 'stretch',
                textAlign: 'left',
                p: 1.25,
                font: 'inherit',
                bgcolor: look === one ? ink('blade') : 'background.paper',
                border: 1.5,
                borderColor: look === one ? ink('steel') : 'divider',
              }}
            >
              <JointDrawing joint={one} label={t(`parts.joint.${one}`)} />
              <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center', mt: 0.5 }}>
                <Typography sx={{ fontWeight: 700 }}>{t(`parts.joint.${one}`)}</Typography>
                <KeyCap>{String(i + 1)}</KeyCap>
              </Stack>
              <Typography variant="body2" color="textSecondary">
                {t(`parts.joint.sign.${one}`)}
              </Typography>
            </ButtonBase>
          ))}
        </Box>
        {look !== null && (
          <Typography sx={{ mt: 1.5 }}>
            <b>{t('parts.joint.opens')}</b> {t(`parts.joint.open.${look}`)}
          </Typography>
        )}
        {look !== null && look !== 'riveted' && (
          <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 2, mt: 2, alignItems: { sm: 'flex-start' } }}>
            <TextField
              select
              label={t('parts.joint.which')}
              value={partId}
              onChange={(event) => setPartId(event.target.value)}
              error={at('partId') !== undefined}
              helperText={at('partId')}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              sx={{ minWidth: 230 }}
            >
              <MenuItem value="" sx={{ minHeight: 48 }}>
                {t('app.unknown')}
              </MenuItem>
              {candidates.map(({ id, maker, name }) => (
                <MenuItem key={id} value={id} sx={{ minHeight: 48 }}>
                  {maker} {name}
                </MenuItem>
              ))}
            </TextField>
            {look !== 'pin' && (
              <>
                <TextField
                  label={t('parts.joint.closings')}
                  value={closings}
                  onChange={(event) => {
                    setClosings(event.target.value)
                    setWrong(null)
                  }}
                  error={at('closings') !== undefined}
                  helperText={at('closings')}
                  slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'numeric' } }}
                  placeholder={t('app.unknown')}
                  sx={{ width: 190 }}
                />
                <ToggleButtonGroup
                  exclusive
                  value={firm}
                  aria-label={t('parts.joint.click')}
                  onChange={(_, value: boolean | null) => setFirm(value)}
                >
                  <ToggleButton value sx={{ height: 56, px: 2 }}>
                    {t('parts.joint.firm')}
                  </ToggleButton>
                  <ToggleButton value={false} sx={{ height: 56, px: 2 }}>
                    {t('parts.joint.weak')}
                  </ToggleButton>
                </ToggleButtonGroup>
              </>
            )}
          </Stack>
        )}
        <Stack direction="row" sx={{ justifyContent: 'flex-end', alignItems: 'center', gap: 2, pt: 2 }}>
          {at('') !== undefined && (
            <Typography role="alert" color="error">
              {at('')}
            </Typography>
          )}
          <Button type="submit" variant="contained" disabled={look === null} sx={{ px: 4 }}>
            {t('parts.save')}
          </Button>
        </Stack>
      </Box>
    </SheetDialog>
  )
}
