import { Button, Stack, ToggleButton } from '@mui/material'
import { HAND_SIGNS, type HandSign } from '@pelrin/core'
import { useTranslation } from 'react-i18next'
import { KeyCap } from '../../pieces/KeyCap.tsx'

/** What a check by hand noticed: a key or a tap each, and one for nothing. */
export function SignsPad({
  signs,
  onChange,
  onEnter,
}: {
  signs: readonly HandSign[] | null
  onChange: (signs: readonly HandSign[]) => void
  onEnter: () => void
}) {
  const { t } = useTranslation()
  const toggle = (sign: HandSign): void => {
    const noticed = signs ?? []
    onChange(noticed.includes(sign) ? noticed.filter((one) => one !== sign) : [...noticed, sign])
  }
  return (
    <Stack
      role="group"
      aria-label={t('measure.noticed')}
      sx={{ gap: 1 }}
      onKeyDown={(event) => {
        const sign = HAND_SIGNS[Number(event.key) - 1]
        if (sign === undefined && event.key !== '0' && event.key !== 'Enter') return
        event.preventDefault()
        event.stopPropagation()
        if (sign) toggle(sign)
        else if (event.key === '0') onChange([])
        else if (signs !== null) onEnter()
      }}
    >
      {HAND_SIGNS.map((sign, i) => (
        <ToggleButton
          key={sign}
          value={sign}
          selected={signs?.includes(sign) ?? false}
          {...(i === 0 ? { 'data-first-sign': true } : {})}
          onChange={() => toggle(sign)}
          sx={{
            minHeight: 52,
            justifyContent: 'flex-start',
            gap: 1.5,
            fontSize: 'size.text',
            textAlign: 'left',
            lineHeight: 1.15,
          }}
        >
          <KeyCap>{i + 1}</KeyCap>
          {t(`measure.sign.${sign}`)}
        </ToggleButton>
      ))}
      <Button
        variant={signs?.length === 0 ? 'contained' : 'outlined'}
        onClick={() => onChange([])}
        sx={{ minHeight: 52, justifyContent: 'flex-start', gap: 1.5 }}
      >
        <KeyCap>0</KeyCap>
        {t('measure.signNone')}
      </Button>
    </Stack>
  )
}
