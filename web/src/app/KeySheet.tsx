import { Box, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { useLocation } from 'react-router'
import { KeyCap } from '../pieces/KeyCap.tsx'
import { SheetDialog } from '../pieces/SheetDialog.tsx'

/** Every key there is, by where it works: its name, its addresses, and its keys, each by its cap and a message. */
const SHEET = [
  [
    'anywhere',
    /^/,
    [
      ['…', 'finds'],
      ['/', 'finds'],
      ['Alt T', 'scan'],
      ['⇧ 1–=', 'place'],
      ['?', 'sheet'],
      ['Esc', 'back'],
    ],
  ],
  [
    'onStand',
    /^\/$/,
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
    /\/measure$/,
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
    /^\/bikes\/[^/]+$/,
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
    /\/parts$/,
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
    /\/chains$/,
    [
      ['1–9', 'putChain'],
      ['↑ ↓', 'otherOne'],
      ['A', 'addChain'],
      ['U', 'undoSwap'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inCare',
    /\/care$/,
    [
      ['1–4', 'treatBy'],
      ['Enter', 'treatAsUsual'],
      ['W', 'wasWashed'],
      ['Q', 'squeaks'],
      ['U', 'undoCare'],
      ['G', 'toThePot'],
      ['D', 'dayWanted'],
      ['E', 'intervalHabit'],
      ['Esc', 'back'],
    ],
  ],
  [
    'inPot',
    /^\/pot$/,
    [
      ['Enter', 'nextIsDone'],
      ['↑ ↓', 'otherOne'],
      ['← →', 'pinChain'],
      ['P', 'letGoPin'],
      ['A', 'addToPot'],
      ['X', 'outOfPot'],
    ],
  ],
  [
    'inDiary',
    /^\/diary$/,
    [
      ['← →', 'otherDay'],
      ['↑ ↓', 'otherVisit'],
      ['Enter', 'bookSuits'],
      ['B', 'bookChosen'],
      ['R', 'remindAll'],
      ['O', 'seeMessages'],
      ['C', 'calendarAddress'],
    ],
  ],
  [
    'inOtherWear',
    /\/other-wear$/,
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
    /\/mend$/,
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
    /\/job$/,
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
    /^\/catalogue/,
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
    /^\/gauges/,
    [
      ['C', 'check'],
      ['E', 'editRecord'],
    ],
  ],
] as const

export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useTranslation()
  const { pathname } = useLocation()
  const here = SHEET.filter(([, addresses]) => addresses.test(pathname))
  return (
    <SheetDialog open={open} onClose={onClose} title={t('keys.title')} maxWidth="lg">
      <Box sx={{ columns: { xs: 1, sm: 2, md: 3 }, columnGap: 4 }}>
        {/* What works here comes first. */}
        {[...here, ...SHEET.filter((one) => !here.includes(one))].map(([section, , rows]) => (
          <Box key={section} sx={{ breakInside: 'avoid', pb: 3 }}>
            <Typography variant="h3" component="h3" color="textSecondary" sx={{ mb: 1 }}>
              {t(`keys.${section}`)}
            </Typography>
            <Stack component="dl" sx={{ m: 0, gap: 0.75 }}>
              {rows.map(([cap, meaning]) => (
                <Stack key={cap} direction="row" sx={{ gap: 1.5, alignItems: 'baseline' }}>
                  <Box component="dt" sx={{ minWidth: 96 }}>
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
