import { Button, Stack, Typography } from '@mui/material'
import { useEffect } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, useNavigate, useParams } from 'react-router'
import { useFind } from '../../api/queries.ts'
import { useTitle } from '../../pieces/useTitle.ts'

/** Where a scanned tag leads: to its bike, or to a word that no bike has it. */
export function TagPlace() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { tag = '' } = useParams()
  const found = useFind(tag)
  const bike = found.data?.bikes.find((one) => one.tag.toLowerCase() === tag.toLowerCase())
  useEffect(() => {
    if (bike) void navigate(`/?bike=${bike.id}`, { replace: true })
  }, [bike, navigate])
  const says = found.isPending || bike ? t('tags.looking', { tag }) : t('tags.missing', { tag })
  useTitle(says)
  return (
    <Stack sx={{ p: 4, gap: 2, alignItems: 'flex-start' }}>
      <Typography variant="h2" component="h1" aria-live="polite">
        {says}
      </Typography>
      <Button component={Link} to="/" variant="outlined">
        {t('app.toStand')}
      </Button>
    </Stack>
  )
}
