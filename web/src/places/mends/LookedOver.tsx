import { Stack, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { BrokenChainDrawing } from '../../pieces/BrokenChainDrawing.tsx'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import type { Mending } from './useMendBench.ts'

/** The broken chain, section by section: how long it is, where it broke, what else is damaged. */
export function LookedOver(mending: Mending) {
  const { t } = useTranslation()
  const { draft, change, wrong, pitches, counted, inspected, damaged, section, cursor, setCursor } = mending
  const { mark, passed, chosen } = mending
  return (
    <>
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
          sx={{ width: 350 }}
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
      {counted && pitches !== null && (
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
          <Typography sx={{ flex: '1 1 320px', fontSize: 'size.lead', fontWeight: 600 }} role="status">
            {t('mends.section', { from: section.from + 1, to: section.to + 1 })}
          </Typography>
          <KeyButton
            of="mend.mark"
            variant="outlined"
            color="secondary"
            disabled={cursor === 0}
            onClick={() => mark(cursor)}
            sx={{ minHeight: 56 }}
          >
            {cursor === 0
              ? t('mends.brokeHere')
              : t(damaged.includes(cursor) ? 'mends.unmark' : 'mends.mark', { pitch: cursor + 1 })}
          </KeyButton>
          <KeyButton of="mend.seen" variant="contained" onClick={passed} sx={{ minHeight: 56 }}>
            {t('mends.sectionDone')}
          </KeyButton>
        </Stack>
      )}
    </>
  )
}
