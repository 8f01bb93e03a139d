import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import type { Colleague } from '@pelrin/contract'
import { ago, day } from '../../messages/format.ts'

/** Somebody in the list: who they are, how they stand, and what can be done about them. */
export function PersonRow({
  person,
  onOpen,
}: {
  person: Colleague
  onOpen: (what: 'change' | 'leave' | 'link') => void
}) {
  const { t } = useTranslation()
  const { name, initials, signInName, role, leftOn, hasPassword } = person
  return (
    <Stack
      component="li"
      direction="row"
      sx={{
        alignItems: 'center',
        flexWrap: 'wrap',
        columnGap: 2,
        borderTop: 1,
        borderColor: 'divider',
        py: 1,
        opacity: leftOn === null ? 1 : 0.7,
      }}
    >
      <Typography sx={{ width: 56, fontWeight: 700, fontSize: 'size.lead' }}>{initials}</Typography>
      <Box sx={{ flex: 1, minWidth: 220 }}>
        <Typography sx={{ fontWeight: 700 }}>{name}</Typography>
        <Typography variant="body2" color="textSecondary">
          {t(`signIn.role.${role}`)}, {t('people.signInName').toLowerCase()} {signInName}
        </Typography>
        <Typography variant="body2" color="textSecondary">
          <Standing person={person} />
        </Typography>
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button onClick={() => onOpen('link')} aria-label={`${t(linkWords(person))}: ${name}`}>
          {t(linkWords(person))}
        </Button>
        <Button onClick={() => onOpen('change')} aria-label={`${t('people.edit')}: ${name}`}>
          {t('people.edit')}
        </Button>
        {leftOn === null && (
          <Button onClick={() => onOpen('leave')} aria-label={`${t('people.leave')}: ${name}`}>
            {t('people.leave')}
          </Button>
        )}
      </Stack>
    </Stack>
  )

  function linkWords(one: Colleague) {
    return one.leftOn !== null ? 'people.inviteAgain' : hasPassword ? 'people.reset' : 'people.invite'
  }
}

/** How it stands with somebody: left, waiting, or when they were last here. */
function Standing({ person: { leftOn, hasPassword, hasPin, invitedUntil, lastHereAt } }: { person: Colleague }) {
  const { t } = useTranslation()
  if (leftOn !== null) return t('people.state.left', { day: day(leftOn) })
  const said = [
    invitedUntil !== null
      ? t('people.state.invited', { day: day(invitedUntil) })
      : !hasPassword
        ? t('people.state.waiting')
        : lastHereAt === null
          ? t('people.state.never')
          : t('people.state.here', { ago: ago(lastHereAt) }),
    hasPassword && !hasPin ? t('people.state.noPin') : null,
  ]
  return said.filter((one) => one !== null).join(', ')
}
