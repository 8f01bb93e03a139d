import { QueryClient, queryOptions, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import {
  endpoints,
  type CatalogueSort,
  type PartKind,
  type RackSort,
  type RackState,
  type SheetKind,
  type SortWay,
} from '@pelrin/contract'
import { locale } from '../messages/format.ts'
import { ask, ProblemError } from './client.ts'

/** Keys of everything kept, in one place, so that a write knows what it makes stale. */
export const keys = {
  session: ['session'] as const,
  access: ['access'] as const,
  door: ['door'] as const,
  welcome: ['welcome'] as const,
  people: ['people'] as const,
  mail: ['mail'] as const,
  customer: (id: string) => ['customer', id] as const,
  devices: ['devices'] as const,
  tokens: ['tokens'] as const,
  audit: ['audit'] as const,
  lineUp: ['stand'] as const,
  bike: (id: string) => ['bike', id] as const,
  ledger: (id: string) => ['bike', id, 'ledger'] as const,
  parts: (id: string) => ['bike', id, 'parts'] as const,
  chains: (id: string) => ['bike', id, 'chains'] as const,
  chain: (id: string) => ['chain', id] as const,
  joint: (id: string) => ['joint', id] as const,
  pot: ['pot'] as const,
  diary: ['diary'] as const,
  feeds: ['feeds'] as const,
  messages: ['messages'] as const,
  backups: ['backups'] as const,
  care: (id: string) => ['bike', id, 'care'] as const,
  otherWear: (id: string) => ['bike', id, 'other-wear'] as const,
  mends: (id: string) => ['bike', id, 'mends'] as const,
  sheet: (id: string, kind: SheetKind) => ['bike', id, 'sheet', kind] as const,
  job: (id: string) => ['bike', id, 'job'] as const,
  catalogue: ['catalogue'] as const,
  matching: ['catalogue', 'matching'] as const,
  systems: ['catalogue', 'systems'] as const,
  cataloguePart: (id: string) => ['catalogue', 'part', id] as const,
  orders: ['orders'] as const,
  imports: (id: string) => ['bike', id, 'imports'] as const,
  rideAccount: (id: string) => ['bike', id, 'ride-account'] as const,
  insight: ['insight'] as const,
  forecastJob: ['insight', 'job'] as const,
  rack: ['rack'] as const,
  find: (text: string) => ['find', text] as const,
  customers: (text: string) => ['customers', text] as const,
  instruments: ['instruments'] as const,
  register: ['instruments', 'register'] as const,
  instrument: (id: string) => ['instruments', id] as const,
  houseRules: ['house-rules'] as const,
  houseSchools: ['house-rules', 'job-schools'] as const,
  studies: (instrumentId: string) => ['instruments', instrumentId, 'studies'] as const,
  study: (id: string) => ['study', id] as const,
}

export function createQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        // A refusal stays a refusal; a server that is away may come back.
        retry: (count, error) => !(error instanceof ProblemError) && count < 2,
        networkMode: 'offlineFirst',
      },
    },
  })
}

export const useSession = () =>
  useQuery({
    queryKey: keys.session,
    queryFn: ({ signal }) =>
      ask(endpoints.session, { signal }).catch((error: unknown) => {
        if (error instanceof ProblemError && error.problem.status === 401) return null
        throw error
      }),
    staleTime: 60_000,
    // How far a rebuild is, is told with it.
    refetchInterval: ({ state }) => (state.data?.rebuilding ? 3_000 : false),
  })

export const useDoor = () => useQuery({ queryKey: keys.door, queryFn: ({ signal }) => ask(endpoints.door, { signal }) })

export const useLineUp = () =>
  useQuery({
    queryKey: keys.lineUp,
    queryFn: ({ signal }) => ask(endpoints.lineUp, { signal }),
    refetchInterval: 20_000,
  })

export const useBike = (id: string | undefined) =>
  useQuery({
    queryKey: keys.bike(id ?? ''),
    queryFn: ({ signal }) => ask(endpoints.bike, { params: { id: id ?? '' }, signal }),
    enabled: id !== undefined,
  })

export const useLedger = (id: string) =>
  useQuery({ queryKey: keys.ledger(id), queryFn: ({ signal }) => ask(endpoints.ledger, { params: { id }, signal }) })

/** What is known of a bike for choosing its parts, and what fits it as it stands. */
export const useBikeParts = (id: string | undefined) =>
  useQuery({
    queryKey: keys.parts(id ?? ''),
    queryFn: ({ signal }) => ask(endpoints.bikeParts, { params: { id: id ?? '' }, query: {}, signal }),
    enabled: id !== undefined,
  })

/** The chains of a bike: the one on it, those in rotation, those that lie about. */
export const useBikeChains = (id: string | undefined) =>
  useQuery({
    queryKey: keys.chains(id ?? ''),
    queryFn: ({ signal }) => ask(endpoints.bikeChains, { params: { id: id ?? '' }, signal }),
    enabled: id !== undefined,
  })

export const useChain = (id: string) =>
  useQuery({
    queryKey: keys.chain(id),
    queryFn: ({ signal }) => ask(endpoints.chain, { params: { id }, signal }),
    staleTime: 0,
  })

export const useJoint = (id: string) =>
  useQuery({ queryKey: keys.joint(id), queryFn: ({ signal }) => ask(endpoints.joint, { params: { id }, signal }) })

export const useBikeCare = (id: string) =>
  useQuery({ queryKey: keys.care(id), queryFn: ({ signal }) => ask(endpoints.bikeCare, { params: { id }, signal }) })

/** The wax pots and what is on its way through them; another tablet's hand is seen within seconds. */
export const usePotBoard = () =>
  useQuery({
    queryKey: keys.pot,
    queryFn: ({ signal }) => ask(endpoints.potBoard, { signal }),
    refetchInterval: 4_000,
  })

/** What is due and booked in the weeks ahead. */
export const useDiary = () =>
  useQuery({
    queryKey: keys.diary,
    queryFn: ({ signal }) => ask(endpoints.diary, { query: {}, signal }),
    refetchInterval: 60_000,
  })

/** Reminders and what became of them, as it happens. */
export const useMessagesSent = () =>
  useQuery({
    queryKey: keys.messages,
    queryFn: ({ signal }) => ask(endpoints.outbox, { signal }),
    refetchInterval: 3_000,
  })

export const useDiaryYear = () =>
  useQuery({ queryKey: [...keys.diary, 'year'], queryFn: ({ signal }) => ask(endpoints.diaryYear, { signal }) })

/** What the thermometer in a pot sent; not asked of a pot without one. */
export const potTemperature = (id: string, enabled: boolean) =>
  queryOptions({
    queryKey: [...keys.pot, 'temperature', id],
    queryFn: ({ signal }) => ask(endpoints.potTemperature, { params: { id }, signal }),
    enabled,
    refetchInterval: 2_000,
    // It is live or it is lost: never one that was kept.
    gcTime: 0,
  })

export const useOtherWear = (id: string) =>
  useQuery({
    queryKey: keys.otherWear(id),
    queryFn: ({ signal }) => ask(endpoints.otherWear, { params: { id }, signal }),
  })

export const useBikeMends = (id: string) =>
  useQuery({ queryKey: keys.mends(id), queryFn: ({ signal }) => ask(endpoints.bikeMends, { params: { id }, signal }) })

/** A sheet as it is handed to a customer, in the words of the shop's locale. */
export const useSheet = (id: string, kind: SheetKind) =>
  useQuery({
    queryKey: keys.sheet(id, kind),
    queryFn: ({ signal }) => ask(endpoints.sheet, { params: { id, kind }, query: { locale: locale() }, signal }),
    staleTime: 0,
  })

/** Every chain and joint, for matching in the browser. */
export const useMatching = () =>
  useQuery({
    queryKey: keys.matching,
    queryFn: ({ signal }) => ask(endpoints.matchingCatalogue, { signal }),
    staleTime: 60_000,
  })

export const useSystems = () =>
  useQuery({
    queryKey: keys.systems,
    queryFn: ({ signal }) => ask(endpoints.systems, { signal }),
    staleTime: 300_000,
  })

export interface CatalogueFilter {
  readonly q: string
  readonly kind: PartKind | undefined
  /** Only what is to be ordered. */
  readonly low: boolean
  readonly sort?: CatalogueSort | undefined
  readonly way?: SortWay | undefined
}

export const useCatalogue = ({ q, kind, low, sort, way }: CatalogueFilter) =>
  useInfiniteQuery({
    queryKey: [...keys.catalogue, 'list', { q, kind, low, sort, way }],
    queryFn: ({ pageParam, signal }) =>
      ask(endpoints.catalogue, {
        query: { q: q === '' ? undefined : q, kind, low: low ? 'yes' : undefined, sort, way, cursor: pageParam },
        signal,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  })

export const useCataloguePart = (id: string | undefined) =>
  useQuery({
    queryKey: keys.cataloguePart(id ?? ''),
    queryFn: ({ signal }) => ask(endpoints.cataloguePart, { params: { id: id ?? '' }, signal }),
    enabled: id !== undefined,
  })

/** Orders, asked again while one hangs. */
export const useOrders = () =>
  useQuery({
    queryKey: keys.orders,
    queryFn: ({ signal }) => ask(endpoints.orders, { signal }),
    refetchInterval: ({ state }) =>
      state.data?.some((one) => one.state === 'sending' || one.state === 'unsure') === true ? 3_000 : false,
  })

/** Imports of a bike, asked again while one is being read. */
export const useImports = (id: string) =>
  useQuery({
    queryKey: keys.imports(id),
    queryFn: ({ signal }) => ask(endpoints.imports, { params: { id }, signal }),
    refetchInterval: ({ state }) => (state.data?.some((one) => one.state === 'reading') === true ? 600 : false),
  })

export const useRideAccount = (id: string) =>
  useQuery({
    queryKey: keys.rideAccount(id),
    queryFn: ({ signal }) => ask(endpoints.rideAccount, { params: { id }, signal }),
  })

export const useInsight = () =>
  useQuery({
    queryKey: keys.insight,
    queryFn: ({ signal }) => ask(endpoints.insight, { signal }),
    refetchInterval: ({ state }) =>
      state.data?.job?.state === 'running' || state.data?.job?.state === 'waiting' ? 800 : false,
  })

export const useInstruments = () =>
  useQuery({
    queryKey: keys.instruments,
    queryFn: ({ signal }) => ask(endpoints.instruments, { signal }),
    staleTime: 60_000,
  })

export const useRegister = () =>
  useQuery({ queryKey: keys.register, queryFn: ({ signal }) => ask(endpoints.register, { signal }) })

export const useInstrument = (id: string | undefined) =>
  useQuery({
    queryKey: keys.instrument(id ?? ''),
    queryFn: ({ signal }) => ask(endpoints.instrument, { params: { id: id ?? '' }, signal }),
    enabled: id !== undefined,
  })

export const useStudies = (instrumentId: string) =>
  useQuery({
    queryKey: keys.studies(instrumentId),
    queryFn: ({ signal }) => ask(endpoints.studies, { params: { id: instrumentId }, signal }),
  })

export const useStudy = (id: string) =>
  useQuery({
    queryKey: keys.study(id),
    queryFn: ({ signal }) => ask(endpoints.study, { params: { id }, signal }),
    // Others enter on other devices.
    refetchInterval: 10_000,
  })

export const useHouseRules = () =>
  useQuery({ queryKey: keys.houseRules, queryFn: ({ signal }) => ask(endpoints.houseRules, { signal }) })

export const useHouseSchools = () =>
  useQuery({ queryKey: keys.houseSchools, queryFn: ({ signal }) => ask(endpoints.houseSchools, { signal }) })

/** Bikes like a text. While a new answer is on its way the last one stays, with the text it answers. */
export const useFind = (text: string) =>
  useQuery({
    queryKey: keys.find(text),
    queryFn: async ({ signal }) => ({ text, bikes: await ask(endpoints.find, { query: { q: text }, signal }) }),
    enabled: text.trim() !== '',
    placeholderData: (before) => before,
  })

/** Customers like a text, from two letters on. */
export const useFindCustomers = (text: string) =>
  useQuery({
    queryKey: keys.customers(text.trim()),
    queryFn: ({ signal }) => ask(endpoints.customers, { query: { q: text.trim() }, signal }),
    enabled: text.trim().length > 1,
    placeholderData: (before) => before,
  })

export interface RackFilter {
  readonly q: string
  readonly state: RackState | undefined
  readonly drive: 'derailleur' | 'hub-gear' | 'single-speed' | undefined
  readonly sort?: RackSort | undefined
  readonly way?: SortWay | undefined
}

export const useRack = (filter: RackFilter) =>
  useInfiniteQuery({
    queryKey: [...keys.rack, filter],
    queryFn: ({ pageParam, signal }) =>
      ask(endpoints.rack, {
        query: {
          q: filter.q === '' ? undefined : filter.q,
          state: filter.state,
          drive: filter.drive,
          sort: filter.sort,
          way: filter.way,
          cursor: pageParam,
        },
        signal,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: (before) => before,
  })
