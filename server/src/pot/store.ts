import {
  bathLoad,
  cleaningForWax,
  learnedMinutes,
  potRequest,
  waxCaseOf,
  type PotRecipe,
  type PotStay,
  type ToWax,
  type WaxSchools,
} from '@pelrin/core'
import type { HungChain, PotBoard, PotCandidate, PotChainNow, PotNow } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn, momentAt } from '../days/days.ts'
import { shopZone } from '../days/shopZone.ts'
import { stands } from '../db/facts.ts'
import { asChainJoint } from '../chains/joints.ts'
import { houseSchools } from '../jobs/schools.ts'
import { jointsOfChains } from '../parts/jointStore.ts'

const BIKE = `CASE WHEN b.id IS NULL THEN NULL ELSE json_build_object('id', b.id, 'label', b.label, 'customer', c.name) END AS bike`
const STAMP = (column: string, name: string): string =>
  `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "${name}"`

const CHAINS = `
  SELECT p.id, p.chain_id AS "chainId", h.name AS chain, ${BIKE}, ${STAMP('p.ready_by', 'readyBy')}, p.needs, p.recipe, p.condition,
    ${STAMP('p.not_before', 'notBefore')}, p.state, p.pot_id AS "potId", ${STAMP('p.since', 'since')},
    ${STAMP('p.added_at', 'addedAt')}, p.version,
    coalesce((s.care ->> 'checkFirst')::boolean AND on_now.id IS NOT NULL, false) AS "measureFirst"
  FROM pot_chains p JOIN chains h ON h.id = p.chain_id
  LEFT JOIN bikes b ON b.id = p.bike_id LEFT JOIN customers c ON c.id = b.customer_id
  LEFT JOIN fittings on_now ON on_now.chain_id = p.chain_id AND upper_inf(on_now.during)
  LEFT JOIN bike_state s ON s.bike_id = on_now.bike_id`

/** The pots, what is on its way through them, what is done today, and what could go in. */
export async function potBoard(work: Work): Promise<PotBoard> {
  const zone = await shopZone(work)
  const today = dayIn(zone, work.now)
  const { overrides, assumed } = await assumptionsInForce(work)
  const { waxing } = await houseSchools(work)
  return {
    pots: await potsNow(work),
    chains: await work.select<PotChainNow>(`${CHAINS} WHERE p.state NOT IN ('done', 'left') ORDER BY p.added_at, p.id`),
    hung: await hungChains(work),
    waxing,
    done: await work.select<PotChainNow>(
      `${CHAINS} WHERE p.state = 'done' AND p.since >= :from ORDER BY p.since DESC, p.id LIMIT 60`,
      { from: momentAt(zone, today, '00:00') },
    ),
    candidates: await candidates(work, today, waxing),
    learned: learnedMinutes(await potStays(work), assumed.pot),
    assumptions: { ...overrides },
  }
}

interface CandidateRow extends Omit<PotCandidate, 'waxCase' | 'needs' | 'recipe' | 'condition'>, Omit<ToWax, 'ridden'> {
  readonly recipe: PotRecipe | null
  readonly ridden: ToWax['ridden'] | null
}

/** Of so many days what was done tells what it takes. */
const LEARNED_DAYS = 180

/**
 * Stays in the bath, in a pot and on the rail, by what was pressed. Chains that went in together are one stay; in the pot only those count
 * that another dip went before within three hours, since a cold pot takes longer.
 */
const potStays = (work: Work): Promise<PotStay[]> =>
  work.select<PotStay>(
    `WITH moves AS (
       SELECT e.pot_id, p.recipe, e.went_to, e.occurred_at AS at,
         lead(e.went_to) OVER w AS next, lead(e.occurred_at) OVER w AS until
       FROM pot_events e JOIN pot_chains p ON p.id = e.pot_chain_id
       WHERE e.occurred_at > CAST(:now AS timestamptz) - interval '${LEARNED_DAYS} days'
       WINDOW w AS (PARTITION BY e.pot_chain_id ORDER BY e.occurred_at, e.id)),
     stays AS (
       SELECT DISTINCT CASE went_to WHEN 'stripping' THEN 'strip' WHEN 'hanging' THEN 'hang' ELSE recipe END AS step,
         pot_id, at, until, went_to
       FROM moves WHERE (went_to, next) IN (('stripping', 'drying'), ('in-pot', 'hanging'), ('hanging', 'done')))
     SELECT step, (extract(epoch FROM until - at) / 60)::float AS minutes FROM stays s
     WHERE went_to <> 'in-pot' OR EXISTS (SELECT 1 FROM moves m WHERE m.pot_id = s.pot_id AND m.went_to = 'in-pot'
       AND m.at < s.at AND m.at > s.at - interval '3 hours')`,
    { now: work.now },
  )

/** Waxed, on a bike as far as the books go, and not put back on it yet: the latest time through the pot of each. */
async function hungChains(work: Work): Promise<HungChain[]> {
  const rows = await work.select<PotChainNow>(
    `${CHAINS}
     WHERE p.state = 'done' AND p.back_on_at IS NULL AND p.since >= lower(on_now.during) ORDER BY p.since, p.id LIMIT 40`,
  )
  const joints = await jointsOfChains(
    work,
    rows.map(({ chainId }) => chainId),
  )
  return rows.map((row) => {
    const joint = joints.get(row.chainId)
    return { ...row, joint: joint ? asChainJoint(joint) : null }
  })
}

async function potsNow(work: Work): Promise<PotNow[]> {
  const { assumed } = await assumptionsInForce(work)
  const rows = await work.select<
    Omit<PotNow, 'bath' | 'own' | 'heatMinutes' | 'alarmCelsius'> & {
      heatMinutes: number | null
      alarmCelsius: number | null
      since: string | null
      clean: number
      wet: number
      gritty: number
    }
  >(
    `WITH last AS (SELECT pot_id, max(occurred_at) AS at FROM bath_changes GROUP BY pot_id),
       dipped AS (SELECT e.pot_id, p.condition, count(*)::int AS chains FROM pot_events e JOIN pot_chains p ON p.id = e.pot_chain_id
         LEFT JOIN last ON last.pot_id = e.pot_id
         WHERE e.went_to = 'in-pot' AND (last.at IS NULL OR e.occurred_at > last.at) GROUP BY e.pot_id, p.condition)
     SELECT t.id, t.name, t.capacity, ${STAMP('t.on_since', 'onSince')}, t.thermometer IS NOT NULL AS thermometer, t.vessel,
       t.heat_minutes AS "heatMinutes", t.alarm_celsius AS "alarmCelsius", t.version,
       ${STAMP('last.at', 'since')},
       coalesce((SELECT chains FROM dipped d WHERE d.pot_id = t.id AND d.condition = 'clean'), 0) AS clean,
       coalesce((SELECT chains FROM dipped d WHERE d.pot_id = t.id AND d.condition = 'wet'), 0) AS wet,
       coalesce((SELECT chains FROM dipped d WHERE d.pot_id = t.id AND d.condition = 'gritty'), 0) AS gritty
     FROM pots t LEFT JOIN last ON last.pot_id = t.id ORDER BY t.name, t.id`,
  )
  return rows.map(({ since, clean, wet, gritty, heatMinutes, alarmCelsius, ...pot }) => ({
    ...pot,
    own: { heatMinutes, alarmCelsius },
    heatMinutes: heatMinutes ?? assumed.pot.heatMinutes,
    alarmCelsius: alarmCelsius ?? assumed.pot.alarmCelsius,
    bath: { ...bathLoad({ clean, wet, gritty }, assumed.pot), since },
  }))
}

/**
 * Chains on immersion wax that could go in: of bikes in today, twins that came off since they were waxed last, and what is due within a
 * week; those on their way already are left out.
 */
async function candidates(work: Work, today: string, waxing: WaxSchools): Promise<PotCandidate[]> {
  const rows = await work.select<CandidateRow>(
    `WITH waxed AS (SELECT e.chain_id, max(e.occurred_at) AS at FROM care_events e
         WHERE e.kind = 'treated' AND ${stands('care_events', 'e')} GROUP BY e.chain_id),
       found AS (
         SELECT h.id AS "chainId", h.name AS chain, f.bike_id, v.promised_at,
           CASE WHEN v.id IS NULL THEN 'due' ELSE 'in-today' END AS because, s.care_on AS due,
           (s.care ->> 'checkFirst')::boolean AS "measureFirst", s.care -> 'ridden' AS ridden, h.care, h.part_id
         FROM bike_state s JOIN fittings f ON f.bike_id = s.bike_id AND upper_inf(f.during) JOIN chains h ON h.id = f.chain_id
         LEFT JOIN LATERAL (SELECT id, promised_at FROM visits v WHERE v.bike_id = s.bike_id AND v.day = :today
           AND v.state IN ('waiting', 'on-stand') ORDER BY promised_at LIMIT 1) v ON true
         JOIN bikes b ON b.id = s.bike_id
         WHERE h.care = 'immersion-wax' AND b.gone_on IS NULL AND s.change_on IS NULL
           AND (v.id IS NOT NULL OR s.care_on <= CAST(:today AS date) + 7)
         UNION ALL
         SELECT h.id, h.name, h.home_bike_id, NULL, 'rotation', NULL, false, NULL, h.care, h.part_id FROM chains h LEFT JOIN waxed w ON w.chain_id = h.id
         WHERE h.care = 'immersion-wax' AND h.fate = 'rotation'
           AND (SELECT max(upper(f.during)) FROM fittings f WHERE f.chain_id = h.id) > coalesce(w.at, '-infinity'))
     SELECT "chainId", chain, ${BIKE}, because, ${STAMP('promised_at', 'promisedAt')},
       b.wax_recipe AS recipe, coalesce(found."measureFirst", false) AS "measureFirst", found.ridden, found.care AS before,
       w.at IS NOT NULL AS treated, coalesce(t.facts ->> 'coating' = 'waxed', false) AS "readyWaxed",
       coalesce((SELECT e.kind = 'wash' FROM care_events e WHERE e.chain_id = "chainId" AND e.kind <> 'squeak'
         AND ${stands('care_events', 'e')} ORDER BY e.occurred_at DESC, e.id DESC LIMIT 1), false) AS washed
     FROM found LEFT JOIN waxed w ON w.chain_id = "chainId" LEFT JOIN parts t ON t.id = found.part_id LEFT JOIN bikes b ON b.id = found.bike_id
     LEFT JOIN customers c ON c.id = b.customer_id
     WHERE NOT EXISTS (SELECT 1 FROM pot_chains p WHERE p.chain_id = "chainId" AND p.state NOT IN ('done', 'left'))
     ORDER BY array_position(ARRAY['in-today', 'rotation', 'due'], because), promised_at, due, chain LIMIT 60`,
    { today },
  )
  return rows.map(({ ridden, before, treated, readyWaxed, washed, ...row }) => {
    const waxCase = waxCaseOf({ before, treated, readyWaxed, washed, ridden: ridden ?? { wet: 0, gritty: 0 } })
    const cleaning = cleaningForWax(waxCase, waxing.rewax)
    return { ...row, waxCase, ...potRequest({ waxCase, cleaning, washed, recipe: row.recipe ?? waxing.recipe }) }
  })
}
