import { Box, Checkbox, FormControlLabel, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { POT_RECIPES, REWAX_SCHOOLS, WAX_FINISHES, type WaxSchools } from '@pelrin/core'

/** By which schools chains are waxed here, each with its reason. */
export function WaxingSchools({
  waxing,
  owner,
  onSay,
}: {
  waxing: WaxSchools
  /** Whether whoever looks may change it. */
  owner: boolean
  onSay: (said: Partial<WaxSchools>) => void
}) {
  const { t } = useTranslation()
  return (
    <>
      <Typography variant="h2">{t('jobs.waxing.title')}</Typography>
      <Box component="section" aria-label={t('jobs.waxing.recipe')}>
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          {t('jobs.waxing.recipe')}
        </Typography>
        <ToggleButtonGroup
          exclusive
          value={waxing.recipe}
          disabled={!owner}
          aria-label={t('jobs.waxing.recipe')}
          onChange={(_, recipe: WaxSchools['recipe'] | null) => recipe && onSay({ recipe })}
          sx={{ flexWrap: 'wrap' }}
        >
          {POT_RECIPES.map((one) => (
            <ToggleButton key={one} value={one} sx={{ px: 2 }}>
              {t(`pot.recipe.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Typography variant="body2" color="textSecondary">
          {t('jobs.waxing.recipeWhy')}
        </Typography>
      </Box>
      <Box component="section" aria-label={t('jobs.waxing.finish')}>
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          {t('jobs.waxing.finish')}
        </Typography>
        <ToggleButtonGroup
          exclusive
          value={waxing.finish}
          disabled={!owner}
          aria-label={t('jobs.waxing.finish')}
          onChange={(_, finish: WaxSchools['finish'] | null) => finish && onSay({ finish })}
          sx={{ flexWrap: 'wrap' }}
        >
          {WAX_FINISHES.map((one) => (
            <ToggleButton key={one} value={one} sx={{ px: 2 }}>
              {t(`jobs.waxing.finishOf.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Typography variant="body2" color="textSecondary">
          {t('jobs.waxing.finishWhy')}
        </Typography>
      </Box>
      <Box component="section" aria-label={t('jobs.waxing.rewax')}>
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          {t('jobs.waxing.rewax')}
        </Typography>
        <ToggleButtonGroup
          exclusive
          value={waxing.rewax}
          disabled={!owner}
          aria-label={t('jobs.waxing.rewax')}
          onChange={(_, rewax: WaxSchools['rewax'] | null) => rewax && onSay({ rewax })}
          sx={{ flexWrap: 'wrap' }}
        >
          {REWAX_SCHOOLS.map((one) => (
            <ToggleButton key={one} value={one} sx={{ px: 2 }}>
              {t(`jobs.waxing.rewaxOf.${one}`)}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Typography variant="body2" color="textSecondary">
          {t('jobs.waxing.rewaxWhy')}
        </Typography>
      </Box>
      <Box>
        <FormControlLabel
          control={
            <Checkbox checked={waxing.linkInPot} disabled={!owner} onChange={(_, linkInPot) => onSay({ linkInPot })} />
          }
          label={t('jobs.waxing.linkInPot')}
        />
        <Typography variant="body2" color="textSecondary">
          {t('jobs.waxing.linkInPotWhy')}
        </Typography>
      </Box>
    </>
  )
}
