import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { SheetDialog } from '../pieces/SheetDialog.tsx'

/** Every key there is, by where it works. The first of each pair is the cap, the second a message. */
const SHEET = [
  [
    'anywhere',
    [
      ['…', 'finds'],
      ['/', 'finds'],
      ['⇧ 1–=', 'place'],
      ['?', 'sheet'],
      ['Esc', 'back'],
    ],
  ],
  [
    'onStand',
    [
      ['↑ ↓', 'choose'],
      ['Enter', 'put'],
      ['Alt ↑ ↓', 'move'],
      ['M', 'measure'],
      ['B', 'record'],
      ['P', 'parts'],
      ['J', 'job'],
      ['T', 'treat'],
      ['S', 'chains'],
      ['O', 'otherWear'],
      ['X', 'brokenChain'],
      ['H', 'handSheet'],
      ['W', 'why'],
      ['Alt D', 'done'],
    ],
  ],
  [
    'inMeasure',
    [
      ['Enter', 'next'],
      ['1–9', 'pick'],
      ['Alt 1–8', 'jump'],
      ['Alt I', 'takeInstrument'],
      ['Alt M', 'mode'],
      ['Alt O', 'howTaken'],
      ['Alt H', 'howTo'],
      ['Alt W', 'whySpot'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inBike',
    [
      ['M', 'measure'],
      ['C', 'correct'],
      ['W', 'why'],
      ['D', 'decide'],
      ['K', 'distance'],
      ['T', 'treat'],
      ['S', 'chains'],
      ['O', 'otherWear'],
      ['X', 'brokenChain'],
      ['H', 'handSheet'],
      ['P', 'parts'],
      ['J', 'job'],
    ],
  ],
  [
    'inParts',
    [
      ['↑ ↓', 'chooseChain'],
      ['Shift ↑ ↓', 'chooseJoint'],
      ['← →', 'pitches'],
      ['A', 'ask'],
      ['E', 'editDrive'],
      ['K', 'keepParts'],
      ['X', 'letGoParts'],
      ['O', 'orderParts'],
      ['C', 'compareChains'],
      ['J', 'seeJoint'],
      ['R', 'closeAgain'],
      ['T', 'otherChain'],
      ['H', 'halfLink'],
      ['L', 'toCatalogue'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inChains',
    [
      ['1–9', 'putChain'],
      ['↑ ↓', 'otherOne'],
      ['A', 'addChain'],
      ['U', 'undoSwap'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inOtherWear',
    [
      ['1–4', 'pickShape'],
      ['↑ ↓', 'otherOne'],
      ['Enter', 'leaveLine'],
      ['N', 'newPartOn'],
      ['S', 'saveLooks'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inMend',
    [
      ['← →', 'movePitch'],
      ['Space', 'markPitch'],
      ['Enter', 'sectionSeen'],
      ['1–6', 'pickWay'],
      ['F', 'firmClick'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inJob',
    [
      ['N', 'writeNote'],
      ['T', 'runTimer'],
      ['Space', 'stepDone'],
      ['← →', 'stepMove'],
      ['⌫', 'stepUndo'],
      ['M', 'measure'],
      ['P', 'parts'],
    ],
  ],
  [
    'inCatalogue',
    [
      ['↑ ↓', 'choosePart'],
      ['N', 'newPart'],
      ['I', 'received'],
      ['U', 'used'],
      ['C', 'counted'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inGauges',
    [
      ['C', 'check'],
      ['E', 'editRecord'],
    ],
  ],
] as const

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  return (
    <SheetDialog open={open} onClose={onClose} title={t('keys.title')} maxWidth="md">
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 3, minWidth: { sm: 620 } }}>
        {SHEET.map(([section, rows]) => (
          <Box key={section}>
            <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 1 }}>
              {t(`keys.${section}`)}
            </Typography>
            <Stack component="dl" sx={{ m: 0, gap: 0.75 }}>
              {rows.map(([cap, meaning]) => (
                <Stack key={cap} direction="row" sx={{ gap: 1.5, alignItems: 'baseline' }}>
                  <Box component="dt" sx={{ minWidth: 112 }}>
                    <KeyCap>{cap === '…' ? t('keys.typing') : cap}</KeyCap>
                  </Box>
                  <Box component="dd" sx={{ m: 0 }}>
                    {t(`keys.${meaning}`)}
                  </Box>
                </Stack>
              ))}
            </Stack>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary" sx={{ mt: 2 }}>
        {t('keys.note')}
      </Typography>
    </SheetDialog>
  )
}
