import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  Stack,
  ToggleButton,
  ToggleButtonGroup,
  Typography,
} from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { CLOSE_SCHOOLS, PREPARE_SCHOOLS, SLACK_SCHOOLS, type JobSchools, type WaxSchools } from '@pelrin/core'
import { endpoints, type HouseSchools, may } from '@pelrin/contract'
import { ask } from '../../api/client.ts'
import { keys, useHouseSchools } from '../../api/queries.ts'
import { showAnswer } from '../../api/showAnswer.ts'
import { useWrite } from '../../api/useWrite.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { saidWith, type MessageKey } from '../../messages/said.ts'
import { WaxingSchools } from './WaxingSchools.tsx'
import { Refused } from '../../forms/Refused.tsx'

const SCHOOLS = { slack: SLACK_SCHOOLS, prepare: PREPARE_SCHOOLS, close: CLOSE_SCHOOLS } as const

/** By which schools jobs are done here, each with its reason. */
export function SchoolsEditor() {
  const found = useHouseSchools()
  if (found.isPending) return <Loading />
  if (!found.data) return <Failure error={found.error} again={() => void found.refetch()} />
  return <Schools house={found.data} />
}

function Schools({ house }: { house: HouseSchools }) {
  const { t } = useTranslation()
  const client = useQueryClient()
  const { tell, session } = useSurroundings()
  /** What is chosen otherwise here than it stands: what somebody else changes meanwhile shows in the rest. */
  const [chosen, setChosen] = useState<Partial<JobSchools>>({})
  const [wax, setWax] = useState<Partial<WaxSchools>>({})
  const schools: JobSchools = { ...house.schools, ...chosen }
  const waxing: WaxSchools = { ...house.waxing, ...wax }
  const { wrong, write } = useWrite({ access: endpoints.changeHouseSchools.access })
  const owner = may(session.person.role, 'owner')
  const save = async (): Promise<void> => {
    const now = await write(
      () => ask(endpoints.changeHouseSchools, { version: house.version, body: { ...schools, waxing } }),
      ({ status }) => {
        // Somebody else was first: what they changed is shown, what was chosen here stays chosen.
        if (status === 412) void client.invalidateQueries({ queryKey: keys.houseSchools })
        return false
      },
    )
    if (!now) return
    await showAnswer(client, keys.houseSchools, now)
    setChosen({})
    setWax({})
    tell(t('jobs.schoolsSaved'))
  }
  return (
    <Stack sx={{ gap: 2, maxWidth: 860 }}>
      <Box>
        <Typography variant="h2">{t('jobs.schoolsTitle')}</Typography>
        <Typography color="textSecondary">{t('jobs.schoolsNote')}</Typography>
      </Box>
      {(['slack', 'prepare', 'close'] as const).map((school) => (
        <Box key={school} component="section" aria-label={t(`jobs.schoolOf.${school}`)}>
          <Typography variant="h3" sx={{ mb: 0.5 }}>
            {t(`jobs.schoolOf.${school}`)}
          </Typography>
          <ToggleButtonGroup
            exclusive
            value={schools[school]}
            disabled={!owner}
            aria-label={t(`jobs.schoolOf.${school}`)}
            onChange={(_, one: string | null) => one !== null && setChosen({ ...chosen, [school]: one })}
            sx={{ flexWrap: 'wrap' }}
          >
            {SCHOOLS[school].map((one) => (
              <ToggleButton key={one} value={one} sx={{ px: 2 }}>
                {saidWith(t, `jobs.school.${school}.${one}` as MessageKey, {})}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          <Typography variant="body2" color="textSecondary">
            {t(`jobs.schoolWhy.${school}`)}
          </Typography>
        </Box>
      ))}
      <FormControlLabel
        control={
          <Checkbox
            checked={schools.oilPins}
            disabled={!owner}
            onChange={(_, oilPins) => setChosen({ ...chosen, oilPins })}
          />
        }
        label={t('jobs.oilPins')}
      />
      <WaxingSchools waxing={waxing} owner={owner} onSay={(said) => setWax({ ...wax, ...said })} />
      <Refused>{wrong?.sentence}</Refused>
      {owner && (
        <Button variant="contained" onClick={() => void save()} sx={{ alignSelf: 'flex-start', minHeight: 56, px: 4 }}>
          {t('app.save')}
        </Button>
      )}
    </Stack>
  )
}
