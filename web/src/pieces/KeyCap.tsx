import { styled } from '@mui/material/styles'

/** A key of the keyboard, as it is named on a button or in the key sheet. */
export const KeyCap = styled('kbd')(({ theme }) => ({
  fontFamily: 'inherit',
  fontSize: 13,
  fontWeight: 600,
  lineHeight: '18px',
  minWidth: 20,
  padding: '0 5px',
  textAlign: 'center',
  display: 'inline-block',
  border: '1px solid currentColor',
  borderRadius: 3,
  background: theme.vars?.palette.materials.sheet,
  color: theme.vars?.palette.materials.ink,
  whiteSpace: 'nowrap',
}))
