import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNavigate } from 'react-router'
import { may } from '@pelrin/contract'
import { useHouseRules, useInstruments, usePotBoard } from '../../api/queries.ts'
import { useSurroundings } from '../../app/surroundings.ts'
import { useCommands } from '../../keys/useCommands.ts'
import { ruleName } from '../house-rules/ruleName.ts'

export const FIRST_STEPS = ['judged', 'wall', 'pot', 'people', 'tables', 'archive', 'bike'] as const
export type FirstStep = (typeof FIRST_STEPS)[number]

/** What is to be done in a new shop, what stands of it so far, and the key that does each. */
export function useFirstDay() {
  const { t } = useTranslation()
  const navigate = useNavigate()
  const { session } = useSurroundings()
  const [open, setOpen] = useState<'judged' | 'wall' | null>(null)
  const rules = useHouseRules()
  const instruments = useInstruments()
  const pots = usePotBoard()
  const isOwner = may(session.person.role, 'owner')
  const school = rules.data?.rules.find(({ isDefault }) => isDefault)
  const go: Readonly<Record<FirstStep, () => void>> = {
    judged: () => setOpen('judged'),
    wall: () => setOpen('wall'),
    pot: () => void navigate('/pot'),
    people: () => void navigate('/house-rules?tab=people'),
    tables: () => void navigate('/house-rules?tab=taking-out'),
    archive: () => void navigate('/house-rules?tab=taking-out#whole-shop'),
    bike: () => void navigate('/new-bike'),
  }
  const stands: Partial<Record<FirstStep, string>> = {
    ...(rules.data && school ? { judged: ruleName(rules.data, school.id, t) } : {}),
    ...(instruments.data ? { wall: instruments.data.map(({ name }) => name).join(', ') } : {}),
    ...(pots.data
      ? { pot: pots.data.pots.length === 0 ? t('firstDay.noPot') : pots.data.pots.map(({ name }) => name).join(', ') }
      : {}),
    people: session.people.map(({ name }) => name).join(', '),
  }
  /** What a role may not do is not offered. */
  const steps = FIRST_STEPS.filter((step) =>
    step === 'bike'
      ? may(session.person.role, 'customers')
      : step === 'wall' || step === 'pot'
        ? may(session.person.role, 'work')
        : isOwner,
  )
  useCommands('firstDay', { go: (digit) => steps[digit - 1] && go[steps[digit - 1]!]() })
  return { steps, stands, go, open, close: () => setOpen(null), rules: rules.data, instruments: instruments.data }
}
