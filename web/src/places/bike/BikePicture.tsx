import { Box, Button, ButtonBase, Stack, Typography } from '@mui/material'
import CameraIcon from '@mui/icons-material/PhotoCameraOutlined'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { endpoints, may, type BikeRecord } from '@pelrin/contract'
import { ask, sendFile } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Refused } from '../../forms/Refused.tsx'
import { day } from '../../messages/format.ts'
import { SheetDialog } from '../../pieces/SheetDialog.tsx'
import { NoPicture, scalePicture } from './scalePicture.ts'
import { Allowed } from '../../pieces/Allowed.tsx'

/** What the bike looks like, small, and seen large with a way to take another; where there is none, a way to take one. */
export function BikePicture({ record }: { record: BikeRecord }) {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [open, setOpen] = useState(false)
  const { picture, summary } = record
  const mayTake = may(session.person.role, 'stand')
  if (picture === null && !mayTake) return null
  return (
    <>
      <ButtonBase
        onClick={() => setOpen(true)}
        aria-label={t(picture === null ? 'bike.takePicture' : 'bike.seePicture', { bike: summary.label })}
        sx={{
          width: 72,
          height: 56,
          flexShrink: 0,
          overflow: 'hidden',
          border: 1,
          borderStyle: picture === null ? 'dashed' : 'solid',
          borderColor: 'divider',
          color: 'text.secondary',
        }}
      >
        {picture === null ? (
          <CameraIcon />
        ) : (
          <Box
            component="img"
            src={addressOf(record)}
            alt=""
            sx={{ width: '100%', height: '100%', objectFit: 'cover' }}
          />
        )}
      </ButtonBase>
      {open && <PictureDialog record={record} mayTake={mayTake} onClose={() => setOpen(false)} />}
    </>
  )
}

const addressOf = ({ summary, picture }: BikeRecord): string =>
  `/api/v1/bikes/${summary.id}/picture.jpg?at=${encodeURIComponent(picture?.at ?? '')}`

function PictureDialog({ record, mayTake, onClose }: { record: BikeRecord; mayTake: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const { id, label } = record.summary
  const { busy, wrong, write } = useBikeWrite(id, endpoints.dropPicture.access)
  const [unread, setUnread] = useState(false)
  const keep = async (file: File | undefined): Promise<void> => {
    if (!file || busy) return
    setUnread(false)
    await write(async () => {
      const scaled = await scalePicture(file).catch((error: unknown) => {
        if (!(error instanceof NoPicture)) throw error
        setUnread(true)
        return null
      })
      return scaled && sendFile(`/bikes/${id}/picture`, scaled)
    })
  }
  return (
    <SheetDialog open onClose={onClose} title={t('bike.pictureTitle', { bike: label })} maxWidth="md" fullWidth>
      {record.picture === null ? (
        <Typography color="textSecondary">{t('bike.pictureNone')}</Typography>
      ) : (
        <>
          <Box
            component="img"
            src={addressOf(record)}
            alt={t('bike.pictureOf', { bike: label })}
            sx={{ display: 'block', maxWidth: '100%', maxHeight: '56vh', mx: 'auto' }}
          />
          <Typography color="textSecondary" sx={{ mt: 1 }}>
            {t('bike.pictureAt', { day: day(record.picture.at) })}
          </Typography>
        </>
      )}
      {mayTake && (
        <Stack direction="row" sx={{ gap: 1.5, mt: 2, flexWrap: 'wrap', alignItems: 'center' }}>
          <Choose label={t('bike.camera')} camera busy={busy} onChosen={(file) => void keep(file)} />
          <Choose label={t('bike.pictureFile')} busy={busy} onChosen={(file) => void keep(file)} />
          {record.picture !== null && (
            <Allowed right="stand">
              <Button
                color="error"
                disabled={busy}
                onClick={() => void write(() => ask(endpoints.dropPicture, { params: { id }, key: v7() }))}
              >
                {t('bike.dropPicture')}
              </Button>
            </Allowed>
          )}
        </Stack>
      )}
      <Refused>{unread ? t('problems.picture-unread') : wrong?.sentence}</Refused>
    </SheetDialog>
  )
}

/** A way to a picture: the tablet's camera, or a file. */
function Choose({
  label,
  camera = false,
  busy,
  onChosen,
}: {
  label: string
  camera?: boolean
  busy: boolean
  onChosen: (file: File | undefined) => void
}) {
  return (
    <Allowed right="stand">
      <Button component="label" variant={camera ? 'contained' : 'outlined'} disabled={busy} sx={{ minHeight: 56 }}>
        {label}
        <Box
          component="input"
          type="file"
          accept="image/*"
          aria-label={label}
          {...(camera ? { capture: 'environment' as const } : {})}
          onChange={(event) => {
            onChosen(event.target.files?.[0])
            // The same file may be chosen again.
            event.target.value = ''
          }}
          sx={{ position: 'absolute', width: 1, height: 1, opacity: 0 }}
        />
      </Button>
    </Allowed>
  )
}
