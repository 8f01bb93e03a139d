import { Box, Button, ButtonBase, Stack, Tab, Tabs, Typography } from '@mui/material'
import { DRIVE_CLASSES, SCHOOLS, SHIPPED_RULES } from '@pelrin/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { v7 } from 'uuid'
import { useHouseRules } from '../../api/queries.ts'
import { percent } from '../../messages/format.ts'
import { Failure, Loading } from '../../pieces/States.tsx'
import { useInAddress } from '../../pieces/useInAddress.ts'
import { useTitle } from '../../pieces/useTitle.ts'
import { ink } from '../../theme/theme.ts'
import { AuditPane } from '../access/AuditPane.tsx'
import { DevicesPane } from '../access/DevicesPane.tsx'
import { MailPane } from '../mail/MailPane.tsx'
import { PeoplePane } from '../people/PeoplePane.tsx'
import { ShopPane } from '../shop/ShopPane.tsx'
import { AccessPane } from './AccessPane.tsx'
import { BackupsPane } from './BackupsPane.tsx'
import { AssumptionsEditor } from './AssumptionsEditor.tsx'
import { Exceptions } from './Exceptions.tsx'
import { RuleEditor, type Rule } from './RuleEditor.tsx'
import { TakingOut } from './TakingOut.tsx'
import { SchoolsEditor } from './SchoolsEditor.tsx'
import { ruleName } from './ruleName.ts'

const COLUMNS = 'minmax(0, 1.6fr) repeat(3, minmax(92px, 1fr)) 64px'
const TABS = [
  'limits',
  'assumed',
  'exceptions',
  'jobs',
  'shop',
  'people',
  'devices',
  'mail',
  'taking-out',
  'backups',
  'access',
  'audit',
] as const

/** What chains are judged by in this shop, and everything that is assumed. */
export function HouseRulesPlace() {
  const { t } = useTranslation()
  const rules = useHouseRules()
  const [asked, setTab] = useInAddress('tab')
  const tab = TABS.find((one) => one === asked) ?? 'limits'
  const [chosen, setChosen] = useState<string | null>(null)
  const [added, setAdded] = useState<Rule | null>(null)
  useTitle(t('place.rules'))
  if (rules.isPending) return <Loading />
  if (!rules.data) return <Failure error={rules.error} again={() => void rules.refetch()} />
  const inOrder = [...rules.data.rules].sort(
    (a, b) =>
      Number(a.retired) - Number(b.retired) ||
      Number(b.isDefault) - Number(a.isDefault) ||
      SCHOOLS.indexOf(a.school) - SCHOOLS.indexOf(b.school),
  )
  const listed = [...inOrder, ...(added && !rules.data.rules.some(({ id }) => id === added.id) ? [added] : [])]
  const rule = listed.find(({ id }) => id === chosen) ?? listed[0]
  const add = (): void => {
    const own: Rule = {
      id: v7(),
      version: 0,
      school: 'custom',
      name: null,
      limits: SHIPPED_RULES[0].limits,
      watchShare: SHIPPED_RULES[0].watchShare,
      isDefault: false,
      markedInstrumentId: null,
      retired: false,
      bikes: 0,
      versions: [],
    }
    setAdded(own)
    setChosen(own.id)
  }
  return (
    <Box sx={{ px: 2.75, pt: 1.5, pb: 3 }}>
      <Stack sx={{ flexDirection: { lg: 'row' }, alignItems: { lg: 'baseline' }, columnGap: 3, mb: 1 }}>
        <Typography variant="h1" noWrap sx={{ flexShrink: 0 }}>
          {t('place.rules')}
        </Typography>
        <Tabs
          value={tab}
          onChange={(_, next: (typeof TABS)[number]) => setTab(next)}
          aria-label={t('place.rules')}
          variant="scrollable"
          allowScrollButtonsMobile
        >
          {TABS.map((one) => (
            <Tab key={one} value={one} label={t(`rules.tab.${one}`)} />
          ))}
        </Tabs>
      </Stack>
      {tab === 'assumed' && (
        <AssumptionsEditor
          key={rules.data.assumptions.version}
          assumptions={rules.data.assumptions}
          onDone={() => undefined}
        />
      )}
      {tab === 'jobs' && <SchoolsEditor />}
      {tab === 'taking-out' && <TakingOut />}
      {tab === 'backups' && <BackupsPane />}
      {tab === 'access' && <AccessPane />}
      {tab === 'shop' && <ShopPane />}
      {tab === 'people' && <PeoplePane />}
      {tab === 'devices' && <DevicesPane />}
      {tab === 'mail' && <MailPane />}
      {tab === 'audit' && <AuditPane />}
      {tab === 'exceptions' && <Exceptions rules={rules.data} onDone={() => undefined} />}
      {tab === 'limits' && (
        <Box
          sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 480px' }, gap: 3.5 }}
        >
          <Box sx={{ overflowX: { xs: 'auto', md: 'visible' }, px: 1, mx: -1 }}>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: COLUMNS,
                columnGap: 1.5,
                alignItems: 'end',
                pb: 0.75,
                px: 1,
                mx: -1,
              }}
            >
              <span />
              {DRIVE_CLASSES.map((one) => (
                <Typography key={one} variant="body2" color="textSecondary" sx={{ lineHeight: 1.15 }}>
                  {t(`driveClass.${one}`)}
                </Typography>
              ))}
              <Typography variant="body2" color="textSecondary" sx={{ textAlign: 'right' }}>
                {t('rules.bikesShort')}
              </Typography>
            </Box>
            {listed.map((one) => (
              <RuleRow
                key={one.id}
                rule={one}
                name={one.version === 0 ? t('rules.new') : ruleName(rules.data, one.id, t)}
                chosen={one.id === rule?.id}
                onChoose={() => setChosen(one.id)}
              />
            ))}
            <Button variant="outlined" onClick={add} sx={{ mt: 2 }}>
              {t('rules.add')}
            </Button>
            <Typography variant="body2" color="textSecondary" sx={{ mt: 2, maxWidth: 560 }}>
              {t('rules.note')}
            </Typography>
          </Box>
          {rule && (
            <RuleEditor
              key={`${rule.id} ${rule.version} ${String(rule.isDefault)}`}
              rule={rule}
              onDone={() => setAdded(null)}
            />
          )}
        </Box>
      )}
    </Box>
  )
}

/** A rule in the list: where it changes a chain, for each class of drive, on a short piece of the wear rule. */
function RuleRow({
  rule,
  name,
  chosen,
  onChoose,
}: {
  rule: Rule
  name: string
  chosen: boolean
  onChoose: () => void
}) {
  const { t } = useTranslation()
  return (
    <ButtonBase
      onClick={onChoose}
      aria-pressed={chosen}
      sx={{
        display: 'grid',
        width: 'calc(100% + 16px)',
        gridTemplateColumns: COLUMNS,
        columnGap: 1.5,
        alignItems: 'center',
        textAlign: 'left',
        borderTop: 1,
        borderColor: 'divider',
        minHeight: 62,
        px: 1,
        mx: -1,
        bgcolor: chosen ? ink('sheet') : 'transparent',
        boxShadow: chosen ? `inset 4px 0 0 ${ink('steel')}` : 'none',
        opacity: rule.retired ? 0.55 : 1,
      }}
    >
      <Box>
        <Typography sx={{ fontWeight: 600 }}>{name}</Typography>
        <Typography variant="body2" color="textSecondary">
          {rule.isDefault
            ? t('rules.isDefault')
            : rule.retired
              ? t('rules.isRetired')
              : t('rules.version', { version: rule.version })}
        </Typography>
      </Box>
      {DRIVE_CLASSES.map((one) => {
        const { change, plan } = rule.limits[one]
        return (
          <Box key={one}>
            {rule.school === 'as-marked' ? (
              <Typography variant="body2" color="textSecondary">
                {t('rules.fromMark')}
              </Typography>
            ) : (
              <>
                <Typography sx={{ fontWeight: 700, fontSize: 'size.lead' }}>
                  {plan !== undefined && (
                    <Box component="span" sx={{ fontWeight: 500, color: ink('brass') }}>
                      {percent(plan)}{' '}
                    </Box>
                  )}
                  {percent(change)}
                </Typography>
                <svg viewBox="0 0 90 10" width="100%" height={9} preserveAspectRatio="none" aria-hidden>
                  <rect width={90} height={9} fill={ink('blade')} />
                  {plan !== undefined && (
                    <rect x={(plan / 1.25) * 90} width={((change - plan) / 1.25) * 90} height={9} fill={ink('brass')} />
                  )}
                  <rect x={(change / 1.25) * 90} width={90 - (change / 1.25) * 90} height={9} fill={ink('madder')} />
                </svg>
              </>
            )}
          </Box>
        )
      })}
      <Typography sx={{ textAlign: 'right', fontWeight: 600 }}>{rule.bikes}</Typography>
    </ButtonBase>
  )
}
