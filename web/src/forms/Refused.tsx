import { Typography } from '@mui/material'

/** That something was not written, and why: as a whole, beside what would have written it. */
export const Refused = ({ children }: { children: string | null | undefined }) =>
  children == null ? null : (
    <Typography role="alert" color="error">
      {children}
    </Typography>
  )
