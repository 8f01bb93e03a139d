import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  Stack,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { v7 } from 'uuid'
import { assumptionsWith, bikeReach, keepOff, MEND_JOINTS, mendOptions, type MendOption } from '@pelrin/core'
import { BREAK_CAUSES, endpoints, type BikeMends, type PartsFacts } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { useBikeWrite } from '../../api/useBikeWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { day } from '../../messages/format.ts'
import { Beside } from '../../pieces/Beside.tsx'
import { BrokenChainDrawing } from '../../pieces/BrokenChainDrawing.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { ReachMap, ReachWords } from '../../pieces/ReachMap.tsx'
import { EarlierBreaks } from './EarlierBreaks.tsx'
import { useAdvice } from './useAdvice.ts'
import { SECTION, useMendDraft } from './useMendDraft.ts'
import { WayList, wayKey } from './WayList.tsx'
import { Refused } from '../../forms/Refused.tsx'
import { useCommands } from '../../keys/useCommands.ts'

/** The broken chain on the bench: looked over section by section, then mended in one of the ways there are, or replaced. */
export function MendBench({
  bikeId,
  known,
  chain,
  drive,
}: {
  bikeId: string
  known: BikeMends
  chain: NonNullable<BikeMends['chain']>
  drive: PartsFacts['drive']
}) {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tell } = useSurroundings()
  const { wrong, setWrong, busy, write } = useBikeWrite(bikeId)
  const { draft, change, anew } = useMendDraft(chain.id, chain.pitches)
  const [cursor, setCursor] = useState(draft.seen)
  const pitches = /^\d{2,3}$/.test(draft.pitches.trim()) ? Number(draft.pitches.trim()) : null
  const counted = pitches !== null && pitches >= 20 && pitches % 2 === 0
  const damaged = useMemo(
    () => draft.damaged.filter((one) => pitches !== null && one < pitches),
    [draft.damaged, pitches],
  )
  const inspected = counted && draft.seen >= pitches
  const options = useMemo(
    () =>
      counted
        ? mendOptions(
            { pitches, broken: draft.broken, damaged, spare: chain.offcut },
            MEND_JOINTS.filter((joint) => joint !== 're-press' || known.rePress !== 'excluded'),
          )
        : [],
    [counted, pitches, draft.broken, damaged, chain.offcut, known.rePress],
  )
  const chosen = options.find((option) => wayKey(option) === draft.way) ?? options[0]
  const assumed = assumptionsWith(known.assumptions)
  const before = pitches === null ? null : bikeReach(drive, pitches, assumed)
  const after = chosen ? bikeReach(drive, chosen.left, assumed) : null
  const advice = useAdvice(after ? keepOff(after) : [], draft.cause)
  const section = counted && !inspected ? { from: draft.seen, to: Math.min(pitches, draft.seen + SECTION) - 1 } : null

  const mark = (pitch: number): void => {
    // The place it broke stays marked.
    if (pitch === 0) return
    change({
      damaged: damaged.includes(pitch) ? damaged.filter((one) => one !== pitch) : [...damaged, pitch],
      way: null,
    })
  }
  const passed = (): void => {
    if (!section) return
    change({ seen: section.to + 1 })
    setCursor(Math.min(section.to + 1, (pitches ?? 1) - 1))
  }
  const move = (by: number): void => {
    if (pitches !== null) setCursor(Math.min(pitches - 1, Math.max(0, cursor + by)))
  }
  const save = async (choice: 'mended' | 'replace'): Promise<void> => {
    if (busy || pitches === null) return
    if (draft.cause === null) {
      const sentence = t('problems.cause-missing')
      setWrong({ code: 'cause-missing', sentence, fields: { cause: sentence } })
      return
    }
    const id = v7()
    const body = {
      id,
      fittingId: chain.fittingId,
      pitches,
      broken: draft.broken,
      damaged: [...damaged],
      cause: draft.cause,
      choice,
      mend:
        choice === 'mended' && chosen
          ? { joint: chosen.joint, way: chosen.way, inserted: chosen.inserted.length > 0 }
          : null,
      click: choice === 'mended' && chosen?.joint === 'link' && draft.firm ? ('firm' as const) : null,
      advised: choice === 'mended' ? (draft.advised ?? advice) : '',
    }
    const written = await write(() => ask(endpoints.mendChain, { params: { id: bikeId }, key: id, body }))
    if (!written) return
    anew(written.chain?.pitches ?? null)
    if (choice === 'replace') void navigate(`/bikes/${bikeId}/job?reason=broken`)
    else tell(t('mends.written', { date: day(written.mends[0]?.followUpOn ?? '') }))
  }
  useCommands('mend', {
    left: () => move(-1),
    right: () => move(1),
    mark: section ? () => mark(cursor) : null,
    seen: passed,
    way: (digit) => {
      const option = options[digit - 1]
      if (option && inspected) change({ way: wayKey(option) })
    },
    firm: () => change({ firm: !draft.firm }),
    record: () => navigate(`/bikes/${bikeId}`),
    back: () => navigate(`/bikes/${bikeId}`),
  })
  return (
    <Beside
      width={440}
      beside={
        <>
          {after && before && (
            <Box component="section" aria-label={t('mends.reach')}>
              <Typography variant="h3" component="h2" color="textSecondary" sx={{ mb: 0.5 }}>
                {t('mends.reach')}
              </Typography>
              <ReachMap gears={after} before={before} />
              <ReachWords gears={after} judged={drive.capacityTeeth !== null} />
            </Box>
          )}
          {drive.type === 'derailleur' && inspected && after === null && (
            <Typography color="textSecondary">{t('mends.reachUnknown')}</Typography>
          )}
          <TextField
            select
            label={t('mends.cause')}
            value={draft.cause ?? ''}
            onChange={(event) =>
              change({
                cause: event.target.value === '' ? null : (event.target.value as (typeof BREAK_CAUSES)[number]),
              })
            }
            error={wrong?.fields['cause'] !== undefined}
            helperText={wrong?.fields['cause']}
            slotProps={{ select: { native: true } }}
          >
            <option value="">–</option>
            {BREAK_CAUSES.map((one) => (
              <option key={one} value={one}>
                {t(`mends.causeOf.${one}`)}
              </option>
            ))}
          </TextField>
          <TextField
            label={t('mends.advised')}
            value={draft.advised ?? advice}
            onChange={(event) => change({ advised: event.target.value })}
            multiline
            minRows={4}
            error={wrong?.fields['advised'] !== undefined}
            helperText={wrong?.fields['advised']}
          />
          {chosen?.joint === 'link' && (
            <FormControlLabel
              control={<Checkbox checked={draft.firm} onChange={(_, firm) => change({ firm })} />}
              label={
                <>
                  {t('mends.click')} <Cap of="mend.firm" />
                </>
              }
            />
          )}
          <Refused>{wrong?.sentence}</Refused>
          <Stack direction="row" sx={{ gap: 1.5, flexWrap: 'wrap', '& > *': { flex: '1 1 170px', minHeight: 64 } }}>
            <Button variant="contained" disabled={busy || !inspected} onClick={() => void save('mended')}>
              {t('mends.mended')}
            </Button>
            <Button variant="outlined" disabled={busy || !counted} onClick={() => void save('replace')}>
              {t('mends.replace')}
            </Button>
          </Stack>
          <Typography variant="body2" color="textSecondary">
            {t('mends.replaceNote')}
          </Typography>
        </>
      }
    >
      <Typography variant="h2">{t('mends.title')}</Typography>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'flex-start', flexWrap: 'wrap' }}>
        <TextField
          label={t('mends.pitches')}
          value={draft.pitches}
          onChange={(event) => change({ pitches: event.target.value, seen: 0, way: null })}
          error={draft.pitches !== '' && !counted}
          helperText={
            draft.pitches === ''
              ? t('mends.count')
              : counted
                ? (wrong?.fields['pitches'] ?? ' ')
                : t('problems.count-odd')
          }
          slotProps={{ htmlInput: { inputMode: 'numeric' } }}
          sx={{ width: 250 }}
        />
        <ToggleButtonGroup
          exclusive
          value={draft.broken}
          aria-label={t('mends.broke')}
          onChange={(_, broken: 'inner' | 'outer' | null) => broken && change({ broken, way: null })}
        >
          {(['outer', 'inner'] as const).map((one) => (
            <ToggleButton key={one} value={one} sx={{ minHeight: 56, px: 2 }}>
              {t(`mends.broken.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Stack>
      {counted && (
        <BrokenChainDrawing
          pitches={pitches}
          broken={draft.broken}
          damaged={damaged}
          runs={inspected ? (chosen?.runs ?? []) : []}
          cursor={inspected ? null : cursor}
          section={section}
          onPitch={(pitch) => {
            setCursor(pitch)
            mark(pitch)
          }}
        />
      )}
      {section && (
        <Stack direction="row" sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
          <Typography sx={{ flex: '1 1 320px', fontSize: 18, fontWeight: 600 }} role="status">
            {t('mends.section', { from: section.from + 1, to: section.to + 1 })}
          </Typography>
          <KeyButton
            of="mend.mark"
            variant="outlined"
            color="secondary"
            onClick={() => mark(cursor)}
            sx={{ minHeight: 56 }}
          >
            {t(damaged.includes(cursor) ? 'mends.unmark' : 'mends.mark', { pitch: cursor + 1 })}
          </KeyButton>
          <KeyButton of="mend.seen" variant="contained" onClick={passed} sx={{ minHeight: 56 }}>
            {t('mends.sectionDone')}
          </KeyButton>
        </Stack>
      )}
      {inspected && (
        <>
          <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
            <Typography sx={{ flex: 1, fontWeight: 600 }} role="status">
              {t('mends.allSeen', { count: damaged.length })}
            </Typography>
            <Button onClick={() => change({ seen: 0 })}>{t('mends.more')}</Button>
          </Stack>
          <WayList
            options={options}
            chosen={chosen}
            drive={drive}
            assumed={assumed}
            rePress={known.rePress}
            onChoose={(option: MendOption) => change({ way: wayKey(option) })}
          />
          <Typography color="textSecondary">
            {chosen && t(`mends.ends.${chosen.ends}`)} {t('mends.caution')}
          </Typography>
        </>
      )}
      <EarlierBreaks mends={known.mends} bikeId={bikeId} />
    </Beside>
  )
}
