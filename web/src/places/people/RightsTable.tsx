import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { may, RIGHTS, Role, type Right } from '@pelrin/contract'

/** Who may do what: the very table the server holds to. */
export function RightsTable() {
  const { t } = useTranslation()
  return (
    <Box component="section" aria-labelledby="rights" sx={{ overflowX: 'auto' }}>
      <Typography id="rights" variant="h2" sx={{ mb: 0.5 }}>
        {t('people.rights')}
      </Typography>
      <Table size="small" aria-labelledby="rights">
        <TableHead>
          <TableRow>
            <TableCell component="td" />
            {Role.options.map((role) => (
              <TableCell key={role} align="center">
                {t(`signIn.role.${role}`)}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {(Object.keys(RIGHTS) as Right[]).map((right) => (
            <TableRow key={right}>
              <TableCell component="th" scope="row">
                {t(`people.right.${right}`)}
              </TableCell>
              {Role.options.map((role) => (
                <TableCell key={role} align="center" sx={{ color: may(role, right) ? 'inherit' : 'text.secondary' }}>
                  {t(may(role, right) ? 'people.may' : 'people.mayNot')}
                </TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  )
}
