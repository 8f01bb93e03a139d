import { Button, FormControlLabel, Stack, Switch, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { standardMinutes, type MendOption } from '@pelrin/core'
import { PositionChoice } from '../../pieces/PositionChoice.tsx'
import { StepsByPart } from '../../pieces/StepsByPart.tsx'
import { mendStepsOf, type Mending } from './useMendBench.ts'
import { wayKey, WayList } from './WayList.tsx'

/** Ways to close it, once all of it was looked over, and the steps of the one that is taken. */
export function Ways(mending: Mending) {
  const { t } = useTranslation()
  const { known, drive, assumed, draft, damaged, options, chosen, roadside, change } = mending
  const steps = chosen ? mendStepsOf(mending, chosen) : null
  const minutes = (option: MendOption): number | null => {
    const own = mendStepsOf(mending, option)
    return own && standardMinutes(own)
  }
  return (
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
        minutes={minutes}
        onChoose={(option: MendOption) => change({ way: wayKey(option) })}
      />
      <FormControlLabel
        control={
          <Switch
            checked={roadside}
            // A pin that must not be pressed in again is for nothing else.
            disabled={roadside && !draft.roadside}
            onChange={(_, on) => change({ roadside: on })}
          />
        }
        label={t('mends.roadside')}
      />
      <Typography color="textSecondary">
        {chosen && t(`mends.ends.${chosen.ends}`)} {t('mends.caution')}
      </Typography>
      <PositionChoice position={draft.position} onChange={(position) => change({ position })} />
      {steps && <StepsByPart steps={steps} position={draft.position} />}
    </>
  )
}
