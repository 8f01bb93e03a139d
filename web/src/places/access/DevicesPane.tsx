import { Box, Button, Stack, Typography } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type SignedDevice } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { FormDialog } from '../../forms/FormDialog.tsx'
import { Line } from '../../forms/Line.tsx'
import { useWriteForm } from '../../forms/useWriteForm.ts'
import { ago } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { deviceName } from './deviceName.ts'
import { Tokens } from './Tokens.tsx'

/** The tablets and computers of the shop, named, and signed out from here where one is lost. */
export function DevicesPane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const [open, setOpen] = useState<{ what: 'rename' | 'revoke'; device: SignedDevice } | null>(null)
  const isOwner = may(session.person.role, 'owner')
  const devices = useQuery({
    queryKey: keys.devices,
    queryFn: ({ signal }) => ask(endpoints.devices, { signal }),
    enabled: isOwner,
  })
  if (!isOwner) return <Typography>{t('devices.owner')}</Typography>
  if (devices.isPending) return <Loading />
  if (!devices.data) return <Failure error={devices.error} again={() => void devices.refetch()} />
  return (
    <Stack sx={{ gap: 2, maxWidth: 860 }}>
      <Typography color="textSecondary">{t('devices.note')}</Typography>
      <Box component="ul" aria-label={t('rules.tab.devices')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {devices.data.map((device) => (
          <Stack
            component="li"
            key={device.id}
            direction="row"
            sx={{ alignItems: 'center', flexWrap: 'wrap', gap: 1, borderTop: 1, borderColor: 'divider', py: 1 }}
          >
            <Box sx={{ flex: 1, minWidth: 220 }}>
              <Typography sx={{ fontWeight: 700 }}>
                {deviceName(device.name)}
                {device.isThis && ` (${t('devices.this')})`}
              </Typography>
              <Typography variant="body2" color="textSecondary">
                {[
                  device.person === null ? t('devices.nobody') : t('devices.at', { name: device.person }),
                  device.lastSeenAt === null ? null : t('devices.seen', { ago: ago(device.lastSeenAt) }),
                ]
                  .filter((one) => one !== null)
                  .join(', ')}
              </Typography>
            </Box>
            <Button
              onClick={() => setOpen({ what: 'rename', device })}
              aria-label={`${t('devices.rename')}: ${deviceName(device.name)}`}
            >
              {t('devices.rename')}
            </Button>
            {!device.isThis && (
              <Button
                onClick={() => setOpen({ what: 'revoke', device })}
                aria-label={`${t('devices.revoke')}: ${deviceName(device.name)}`}
              >
                {t('devices.revoke')}
              </Button>
            )}
          </Stack>
        ))}
      </Box>
      <Tokens />
      {open?.what === 'rename' && <Rename device={open.device} onClose={() => setOpen(null)} />}
      {open?.what === 'revoke' && <Revoke device={open.device} onClose={() => setOpen(null)} />}
    </Stack>
  )
}

interface OfDevice {
  readonly device: SignedDevice
  readonly onClose: () => void
}

function Rename({ device, onClose }: OfDevice) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access: endpoints.renameDevice.access,
    stale: [keys.devices, keys.session],
    schema: endpoints.renameDevice.body,
    start: { name: deviceName(device.name) },
    read: (typed) => typed,
    send: (body) => ask(endpoints.renameDevice, { params: { id: device.id }, body }),
    done: onClose,
  })
  return (
    <FormDialog form={form} title={t('devices.renameTitle')} go={t('app.save')} onClose={onClose}>
      <Line name="name" label={t('devices.name')} longest={60} autoFocus />
    </FormDialog>
  )
}

function Revoke({ device, onClose }: OfDevice) {
  const { t } = useTranslation()
  const { tell } = useSurroundings()
  const form = useWriteForm({
    access: endpoints.revokeDevice.access,
    stale: [keys.devices],
    schema: undefined,
    start: {},
    read: () => ({}),
    send: () => ask(endpoints.revokeDevice, { params: { id: device.id } }),
    done: () => {
      tell(t('devices.revoked'))
      onClose()
    },
  })
  return (
    <FormDialog
      form={form}
      title={t('devices.revokeTitle', { name: deviceName(device.name) })}
      go={t('devices.revoke')}
      onClose={onClose}
    >
      <Typography>{t('devices.revokeNote')}</Typography>
    </FormDialog>
  )
}
