import { Stack, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { KeyButton } from '../../pieces/KeyButton.tsx'
import { listedJoint } from './listed.ts'
import { ruledText } from './partAnswer.ts'
import { jointKey, jointName } from './partLook.ts'
import { PartsList } from './PartsList.tsx'
import { RulesOf } from './RulesOf.tsx'
import type { PartsView } from './usePartsPlace.ts'

/** Joints for the chosen chain, or to close the one that is on again. */
export function JointsPane(view: PartsView) {
  const { t } = useTranslation()
  const { choice, choose, match, joint } = view
  return (
    <Stack sx={{ minHeight: 0, pb: 1, gap: 0.75, gridRow: { md: 2 } }}>
      <Head {...view} />
      {choice.jointsFor === 'on' && (
        <ToggleButtonGroup
          exclusive
          value={choice.school}
          aria-label={t('parts.reuseSchool')}
          onChange={(_, school: 'strict' | 'by-feel' | null) => school && choose({ school })}
          sx={{ '& button': { flex: 1, minHeight: 40 } }}
        >
          <ToggleButton value="strict">{t('parts.school.strict')}</ToggleButton>
          <ToggleButton value="by-feel">{t('parts.school.by-feel')}</ToggleButton>
        </ToggleButtonGroup>
      )}
      <PartsList
        label={t('parts.jointsNone')}
        parts={match.joints.map((one) => listedJoint(one, t))}
        chosen={joint ? jointKey(joint) : null}
        onChoose={(key) => choose({ joint: key })}
      />
      {joint && (
        <RulesOf
          title={t('parts.why', { part: jointName(joint, t) })}
          answer={ruledText(joint, t)}
          rules={joint.rules}
        />
      )}
    </Stack>
  )
}

function Head({ facts, matching, match, chain, choice, closeAgain, setSheet }: PartsView) {
  const { t } = useTranslation()
  const called = matching?.chains.find(({ id }) => id === match.chainId)?.name ?? chain?.part.name
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1, minHeight: 40 }}>
      <Typography variant="h2" component="h2" sx={{ flex: 1, lineHeight: 1.05 }}>
        {choice.jointsFor === 'on'
          ? t('parts.jointsOn')
          : called === undefined
            ? t('parts.jointsNone')
            : t('parts.joints', { chain: called })}
      </Typography>
      {facts.presentChainId !== null && choice.of === 'drive' && (
        <KeyButton
          of="parts.closeAgain"
          variant="text"
          aria-pressed={choice.jointsFor === 'on'}
          onClick={closeAgain}
          sx={{ minHeight: 40, px: 0.75, whiteSpace: 'nowrap' }}
        >
          {t(choice.jointsFor === 'on' ? 'parts.forNew' : 'parts.forOn')}
        </KeyButton>
      )}
      <KeyButton
        of="parts.joint"
        variant="text"
        onClick={() => setSheet('joint')}
        title={t('parts.joint.title')}
        sx={{ minHeight: 40, px: 0.75, whiteSpace: 'nowrap' }}
      >
        {t('parts.joint.short')}
      </KeyButton>
    </Stack>
  )
}
