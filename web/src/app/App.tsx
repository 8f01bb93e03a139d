import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { createBrowserRouter, Link, Outlet } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { useSession } from '../api/queries.ts'
import { Failure, Loading } from '../pieces/States.tsx'
import { SignInPlace } from '../places/sign-in/SignInPlace.tsx'
import { StandPlace } from '../places/stand/StandPlace.tsx'
import { Shell } from './Shell.tsx'

/** Nobody gets past here without a session. */
function Gate() {
  const session = useSession()
  if (session.isPending) return <Loading />
  if (session.data === undefined) return <Failure error={session.error} again={() => void session.refetch()} />
  return session.data === null ? <SignInPlace /> : <Shell session={session.data} />
}

function Nowhere() {
  const { t } = useTranslation()
  return (
    <Stack sx={{ alignItems: 'center', p: 6, gap: 2 }}>
      <Typography variant="h2" component="h1">
        {t('app.notHere')}
      </Typography>
      <Button component={Link} to="/" variant="contained">
        {t('app.toStand')}
      </Button>
    </Stack>
  )
}

function Broken() {
  const { t } = useTranslation()
  return (
    <Box sx={{ p: 6, textAlign: 'center' }} role="alert">
      <Typography variant="h2" component="h1">
        {t('app.fault')}
      </Typography>
      <Button variant="contained" sx={{ mt: 3 }} onClick={() => window.location.assign('/')}>
        {t('app.toStand')}
      </Button>
    </Box>
  )
}

const places = {
  rack: async () => ({ Component: (await import('../places/rack/RackPlace.tsx')).RackPlace }),
  bike: async () => ({ Component: (await import('../places/bike/BikePlace.tsx')).BikePlace }),
  gauges: async () => ({ Component: (await import('../places/gauges/GaugesPlace.tsx')).GaugesPlace }),
  ruleChart: async () => ({ Component: (await import('../places/rule-chart/RuleChartPlace.tsx')).RuleChartPlace }),
  study: async () => ({ Component: (await import('../places/study/StudyPlace.tsx')).StudyPlace }),
  houseRules: async () => ({ Component: (await import('../places/house-rules/HouseRulesPlace.tsx')).HouseRulesPlace }),
  distance: async () => ({ Component: (await import('../places/distance/DistancePlace.tsx')).DistancePlace }),
  job: async () => ({ Component: (await import('../places/job/JobPlace.tsx')).JobPlace }),
  catalogue: async () => ({ Component: (await import('../places/catalogue/CataloguePlace.tsx')).CataloguePlace }),
  orders: async () => ({ Component: (await import('../places/orders/OrdersPlace.tsx')).OrdersPlace }),
  parts: async () => ({ Component: (await import('../places/parts/PartsPlace.tsx')).PartsPlace }),
  insight: async () => ({ Component: (await import('../places/insight/InsightPlace.tsx')).InsightPlace }),
  measure: async () => ({ Component: (await import('../places/measure/MeasurePlace.tsx')).MeasurePlace }),
}

/** Fetches the other places while nobody waits, so that a key press finds them there, also without a connection. */
export function fetchPlacesAhead(): void {
  for (const place of Object.values(places)) void place().catch(() => undefined)
}

const router = createBrowserRouter([
  {
    element: <Gate />,
    errorElement: <Broken />,
    hydrateFallbackElement: <Loading />,
    children: [
      {
        element: <Outlet />,
        errorElement: <Broken />,
        children: [
          { path: '/', element: <StandPlace /> },
          {
            path: '/rack',
            lazy: places.rack,
          },
          {
            path: '/bikes/:id',
            lazy: places.bike,
          },
          {
            path: '/bikes/:id/measure',
            lazy: places.measure,
          },
          { path: '/bikes/:id/distance', lazy: places.distance },
          { path: '/bikes/:id/parts', lazy: places.parts },
          { path: '/bikes/:id/job', lazy: places.job },
          { path: '/catalogue/:id?', lazy: places.catalogue },
          { path: '/orders', lazy: places.orders },
          { path: '/insight', lazy: places.insight },
          { path: '/gauges/:id?', lazy: places.gauges },
          { path: '/rule-chart', lazy: places.ruleChart },
          { path: '/studies/:id', lazy: places.study },
          { path: '/house-rules', lazy: places.houseRules },
          { path: '*', element: <Nowhere /> },
        ],
      },
    ],
  },
])

export function App() {
  return <RouterProvider router={router} />
}
