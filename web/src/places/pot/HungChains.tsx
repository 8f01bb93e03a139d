import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { HungChain } from '@pelrin/contract'
import { ago } from '../../messages/format.ts'
import { Allowed } from '../../pieces/Allowed.tsx'
import { Cap } from '../../pieces/Cap.tsx'
import { shortName } from './shortName.ts'

/** Waxed chains that hang and wait to go back on the bike they came off. */
export function HungChains({ hung, onBack }: { hung: readonly HungChain[]; onBack: (chain: HungChain) => void }) {
  const { t } = useTranslation()
  if (hung.length === 0) return null
  return (
    <Box component="section" aria-label={t('pot.hung')} sx={{ borderTop: 1, borderColor: 'divider', pt: 1 }}>
      <Typography variant="h3" component="h2" color="textSecondary">
        {t('pot.hung')}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {hung.map((chain, i) => (
          <Stack component="li" key={chain.id} direction="row" sx={{ gap: 1, alignItems: 'center', py: 0.5 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Typography sx={{ fontWeight: 600 }}>{shortName(chain)}</Typography>
              <Typography variant="body2" color="textSecondary">
                {t('pot.hungSince', { when: ago(chain.since) })}
              </Typography>
            </Box>
            <Allowed right="record">
              <Button
                variant="outlined"
                onClick={() => onBack(chain)}
                aria-label={`${t('pot.backOn')}: ${shortName(chain)}`}
                sx={{ minHeight: 52, gap: 1 }}
              >
                {t('pot.backOn')} {i === 0 && <Cap of="pot.backOn" />}
              </Button>
            </Allowed>
          </Stack>
        ))}
      </Box>
    </Box>
  )
}
