import { Box, Stack, Typography } from '@mui/material'
import type { UseQueryResult } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import type { BikeRecord } from '@pelrin/contract'
import { useBike } from '../api/queries.ts'
import { BikeLine } from './BikeLine.tsx'
import { Failure, Loading } from './States.tsx'
import { useTitle } from './useTitle.ts'

/** A place about one bike: whose it is and which, once it and all the place needs beside it is there. */
export function OfBike({
  bikeId,
  title,
  needs,
  also,
  children,
}: {
  bikeId: string
  /** What the place is called. */
  title: string
  /** What else is asked for: waited for, and asked again where it failed. */
  needs: readonly UseQueryResult[]
  /** Said behind the bike's own line. */
  also?: string | undefined
  children: (record: BikeRecord) => ReactNode
}) {
  const bike = useBike(bikeId)
  useTitle(title)
  const all = [bike, ...needs]
  if (all.some(({ isPending }) => isPending)) return <Loading />
  const missing = all.find(({ data }) => data === undefined)
  if (!bike.data || missing)
    return <Failure error={missing?.error ?? null} again={() => all.forEach((query) => void query.refetch())} />
  return (
    <Stack sx={{ height: { md: '100%' }, px: 2.75, pt: 1.5, gap: 0.75 }}>
      <Box>
        <Typography variant="h1">{bike.data.customer.name}</Typography>
        <Typography color="textSecondary">
          <BikeLine bike={bike.data.summary} teeth />
          {also !== undefined && `, ${also}`}
        </Typography>
      </Box>
      {children(bike.data)}
    </Stack>
  )
}
