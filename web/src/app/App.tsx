import { Box, Button, Stack, Typography } from '@mui/material'
import { useTranslation } from 'react-i18next'
import { createBrowserRouter, Link, Outlet } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { useSession } from '../api/queries.ts'
import { formatsAreOf } from '../messages/shopFormats.ts'
import { Failure, Loading } from '../pieces/States.tsx'
import { SignInPlace } from '../places/sign-in/SignInPlace.tsx'
import { StandPlace } from '../places/stand/StandPlace.tsx'
import { Shell } from './Shell.tsx'

/** Nobody gets past here without a session. */
function Gate() {
  const session = useSession()
  if (session.isPending) return <Loading />
  if (session.data === undefined) return <Failure error={session.error} again={() => void session.refetch()} />
  if (session.data === null) return <SignInPlace />
  const { shop } = session.data
  // Before anything is drawn. What is drawn already is drawn anew where the shop writes otherwise from now on.
  formatsAreOf(shop)
  return <Shell key={[shop.locale, shop.timeZone, shop.currency, shop.temperatureUnit].join()} session={session.data} />
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

/** In the order in which they are fetched ahead: what is opened from the stand first. */
const places = {
  measure: async () => ({ Component: (await import('../places/measure/MeasurePlace.tsx')).MeasurePlace }),
  rack: async () => ({ Component: (await import('../places/rack/RackPlace.tsx')).RackPlace }),
  bike: async () => ({ Component: (await import('../places/bike/BikePlace.tsx')).BikePlace }),
  newBike: async () => ({ Component: (await import('../places/new-bike/NewBikePlace.tsx')).NewBikePlace }),
  gauges: async () => ({ Component: (await import('../places/gauges/GaugesPlace.tsx')).GaugesPlace }),
  ruleChart: async () => ({ Component: (await import('../places/rule-chart/RuleChartPlace.tsx')).RuleChartPlace }),
  study: async () => ({ Component: (await import('../places/study/StudyPlace.tsx')).StudyPlace }),
  houseRules: async () => ({ Component: (await import('../places/house-rules/HouseRulesPlace.tsx')).HouseRulesPlace }),
  distance: async () => ({ Component: (await import('../places/distance/DistancePlace.tsx')).DistancePlace }),
  chain: async () => ({ Component: (await import('../places/chains/ChainPlace.tsx')).ChainPlace }),
  chains: async () => ({ Component: (await import('../places/chains/ChainsPlace.tsx')).ChainsPlace }),
  mend: async () => ({ Component: (await import('../places/mends/MendPlace.tsx')).MendPlace }),
  sheet: async () => ({ Component: (await import('../places/sheets/SheetPlace.tsx')).SheetPlace }),
  care: async () => ({ Component: (await import('../places/care/CarePlace.tsx')).CarePlace }),
  pot: async () => ({ Component: (await import('../places/pot/PotPlace.tsx')).PotPlace }),
  diary: async () => ({ Component: (await import('../places/diary/DiaryPlace.tsx')).DiaryPlace }),
  messages: async () => ({ Component: (await import('../places/messages/MessagesPlace.tsx')).MessagesPlace }),
  tags: async () => ({ Component: (await import('../places/tags/TagsPlace.tsx')).TagsPlace }),
  tag: async () => ({ Component: (await import('../places/tags/TagPlace.tsx')).TagPlace }),
  otherWear: async () => ({ Component: (await import('../places/otherWear/OtherWearPlace.tsx')).OtherWearPlace }),
  joint: async () => ({ Component: (await import('../places/chains/JointPlace.tsx')).JointPlace }),
  job: async () => ({ Component: (await import('../places/jobs/JobPlace.tsx')).JobPlace }),
  catalogue: async () => ({ Component: (await import('../places/catalogue/CataloguePlace.tsx')).CataloguePlace }),
  orders: async () => ({ Component: (await import('../places/orders/OrdersPlace.tsx')).OrdersPlace }),
  parts: async () => ({ Component: (await import('../places/parts/PartsPlace.tsx')).PartsPlace }),
  welcome: async () => ({ Component: (await import('../places/welcome/WelcomePlace.tsx')).WelcomePlace }),
  firstDay: async () => ({ Component: (await import('../places/first-day/FirstDayPlace.tsx')).FirstDayPlace }),
  customer: async () => ({ Component: (await import('../places/customers/CustomerPlace.tsx')).CustomerPlace }),
  customers: async () => ({ Component: (await import('../places/customers/CustomersPlace.tsx')).CustomersPlace }),
  insight: async () => ({ Component: (await import('../places/insight/InsightPlace.tsx')).InsightPlace }),
}

/** Until the page has nothing else to do. */
const idle = (): Promise<void> =>
  new Promise((done) => ('requestIdleCallback' in window ? requestIdleCallback(() => done()) : setTimeout(done, 50)))

/**
 * Fetches the other places while nobody waits, so that a key press finds them there, also without a connection. One after the
 * other: whoever types meanwhile is not held up.
 */
export async function fetchPlacesAhead(): Promise<void> {
  for (const place of Object.values(places)) {
    await idle()
    await place().catch(() => undefined)
  }
}

const router = createBrowserRouter([
  // A one-time link opens for whoever holds it, signed in or not.
  { path: '/welcome', lazy: places.welcome, errorElement: <Broken />, hydrateFallbackElement: <Loading /> },
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
          { path: '/new-bike', lazy: places.newBike },
          { path: '/bikes/:id/distance', lazy: places.distance },
          { path: '/bikes/:id/parts', lazy: places.parts },
          { path: '/bikes/:id/job', lazy: places.job },
          { path: '/bikes/:id/chains', lazy: places.chains },
          { path: '/bikes/:id/care', lazy: places.care },
          { path: '/pot', lazy: places.pot },
          { path: '/diary', lazy: places.diary },
          { path: '/messages', lazy: places.messages },
          { path: '/tags', lazy: places.tags },
          { path: '/t/:tag', lazy: places.tag },
          { path: '/bikes/:id/other-wear', lazy: places.otherWear },
          { path: '/bikes/:id/mend', lazy: places.mend },
          { path: '/bikes/:id/sheets/:kind', lazy: places.sheet },
          { path: '/chains/:id', lazy: places.chain },
          { path: '/joints/:id', lazy: places.joint },
          { path: '/catalogue/:id?', lazy: places.catalogue },
          { path: '/orders', lazy: places.orders },
          { path: '/insight', lazy: places.insight },
          { path: '/gauges/:id?', lazy: places.gauges },
          { path: '/rule-chart', lazy: places.ruleChart },
          { path: '/studies/:id', lazy: places.study },
          { path: '/house-rules', lazy: places.houseRules },
          { path: '/first-day', lazy: places.firstDay },
          { path: '/customers', lazy: places.customers },
          { path: '/customers/:id', lazy: places.customer },
          { path: '*', element: <Nowhere /> },
        ],
      },
    ],
  },
])

export function App() {
  return <RouterProvider router={router} />
}
