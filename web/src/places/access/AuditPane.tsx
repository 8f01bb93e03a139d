import { Box, Button, Link, MenuItem, Stack, TextField, Typography } from '@mui/material'
import DownloadIcon from '@mui/icons-material/FileDownloadOutlined'
import { DatePicker } from '@mui/x-date-pickers/DatePicker'
import { useInfiniteQuery } from '@tanstack/react-query'
import dayjs from 'dayjs'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { endpoints, may, type Act, type AuditFilter } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { PickersIn } from '../../forms/PickersIn.tsx'
import { clock, day } from '../../messages/format.ts'
import { dayPattern } from '../../messages/pickerFormats.ts'
import { saidOf } from '../../messages/said.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useOwnersFile } from '../house-rules/useOwnersFile.ts'
import { deviceName } from './deviceName.ts'

/** Who did what when to which bike, for the owner. */
export function AuditPane() {
  const { t } = useTranslation()
  const { session } = useSurroundings()
  const download = useOwnersFile()
  const [filter, setFilter] = useState<AuditFilter>({})
  const isOwner = may(session.person.role, 'owner')
  const audit = useInfiniteQuery({
    queryKey: [...keys.audit, filter],
    queryFn: ({ pageParam, signal }) =>
      ask(endpoints.audit, { query: { ...filter, ...(pageParam === undefined ? {} : { cursor: pageParam }) }, signal }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    enabled: isOwner,
    staleTime: 0,
    // What is shown stays until what is asked for has come.
    placeholderData: (before) => before,
  })
  if (!isOwner) return <Typography>{t('audit.owner')}</Typography>
  const acts = audit.data?.pages.flatMap((page) => page.acts) ?? []
  const actions = audit.data?.pages[0]?.actions ?? []
  /** A condition that is left empty is none. */
  const where = (change: Partial<Record<keyof AuditFilter, string>>): void =>
    setFilter((now) => Object.fromEntries(Object.entries({ ...now, ...change }).filter(([, to]) => to !== '')))
  return (
    <Stack sx={{ gap: 1.5, maxWidth: 980 }}>
      <Typography color="textSecondary">{t('audit.note')}</Typography>
      <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <Chosen
          label={t('audit.person')}
          value={filter.personId ?? ''}
          options={[['', t('audit.anybody')], ...session.people.map(({ id, name }) => [id, name] as const)]}
          onChange={(personId) => where({ personId })}
        />
        <Chosen
          label={t('audit.action')}
          value={filter.action ?? ''}
          options={[
            ['', t('audit.anything')],
            ...actions.map((one) => [one, saidOf(t, 'acts', one, { defaultValue: one })] as const),
          ]}
          onChange={(action) => where({ action })}
        />
        {(['from', 'to'] as const).map((end) => (
          <PickersIn key={end}>
            <DatePicker
              label={t(`audit.${end}`)}
              format={dayPattern()}
              value={filter[end] === undefined ? null : dayjs(filter[end])}
              onChange={(on) => where({ [end]: on?.isValid() === true ? on.format('YYYY-MM-DD') : '' })}
              slotProps={{ textField: { size: 'small', sx: { width: 170 } } }}
            />
          </PickersIn>
        ))}
        <Button
          component="a"
          href={`/api/v1/audit.csv?${new URLSearchParams(filter).toString()}`}
          download
          onClick={download}
          startIcon={<DownloadIcon />}
          variant="outlined"
        >
          {t('audit.csv')}
        </Button>
        {filter.bikeId !== undefined && <Button onClick={() => where({ bikeId: '' })}>{t('audit.allBikes')}</Button>}
      </Stack>
      {audit.isPending ? (
        <Loading />
      ) : !audit.data ? (
        <Failure error={audit.error} again={() => void audit.refetch()} />
      ) : acts.length === 0 ? (
        <Typography>{t('audit.none')}</Typography>
      ) : (
        <Box component="ol" aria-label={t('rules.tab.audit')} sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {acts.map((act) => (
            <Line key={act.id} act={act} onBike={(bikeId) => where({ bikeId })} />
          ))}
        </Box>
      )}
      {audit.hasNextPage && (
        <Button onClick={() => void audit.fetchNextPage()} sx={{ alignSelf: 'flex-start' }}>
          {t('audit.more')}
        </Button>
      )}
    </Stack>
  )
}

function Chosen({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
}) {
  return (
    <TextField
      select
      size="small"
      label={label}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      sx={{ minWidth: 170 }}
    >
      {options.map(([key, words]) => (
        <MenuItem key={key} value={key}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  )
}

function Line({ act, onBike }: { act: Act; onBike: (bikeId: string) => void }) {
  const { t } = useTranslation()
  const { at, action, subjectKind, bike, person, device, elsewhere, detail } = act
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography color="textSecondary" sx={{ whiteSpace: 'nowrap', width: 120 }}>
          {t('access.at', { day: day(at), time: clock(at) })}
        </Typography>
        <Typography sx={{ fontWeight: 600 }}>{person ?? t('audit.nobody')}</Typography>
        <Typography sx={{ flex: 1 }}>
          {saidOf(t, 'acts', action, { defaultValue: action })} {subjectKind}
          {bike && (
            <>
              {': '}
              <Link component="button" onClick={() => onBike(bike.id)} title={t('audit.onlyBike')}>
                {t('audit.ofBike', { bike: bike.label, customer: bike.customer })}
              </Link>
            </>
          )}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          {elsewhere ? t('audit.elsewhere') : device === null ? '' : deviceName(device)}
        </Typography>
      </Stack>
      {Object.keys(detail).length > 0 && (
        <Typography variant="body2" color="textSecondary" sx={{ pl: { sm: '136px' }, overflowWrap: 'anywhere' }}>
          {JSON.stringify(detail).slice(0, 300)}
        </Typography>
      )}
    </Box>
  )
}
