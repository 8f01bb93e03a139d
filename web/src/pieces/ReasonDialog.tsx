import type { QueryKey } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { useTranslation } from 'react-i18next'
import * as v from 'valibot'
import { line, type Endpoint } from '@pelrin/contract'
import { FormDialog } from '../forms/FormDialog.tsx'
import { Line } from '../forms/Line.tsx'
import { useWriteForm } from '../forms/useWriteForm.ts'

const LONGEST = 200
const Reason = v.object({ reason: line(LONGEST) })

/** Asks why something is done, and does it: what is not to be done by a slip wants a reason. */
export function ReasonDialog({
  title,
  go,
  access,
  ready = true,
  stale = [],
  onClose,
  onReason,
  children,
}: {
  title: string
  go: string
  /** Of the endpoint it is sent to. */
  access: Endpoint['access']
  /** False while something above the reason is still to be chosen. */
  ready?: boolean
  /** What is asked for anew before it closes. */
  stale?: readonly QueryKey[]
  onClose: () => void
  /** May throw a ProblemError, whose sentence is then shown. */
  onReason: (reason: string) => Promise<void>
  children?: ReactNode
}) {
  const { t } = useTranslation()
  const form = useWriteForm({
    access,
    stale,
    schema: Reason,
    start: { reason: '' },
    read: (typed) => typed,
    send: ({ reason }) => onReason(reason.trim()),
    done: onClose,
  })
  return (
    <FormDialog form={form} title={title} go={go} ready={ready} onClose={onClose}>
      {children}
      <Line name="reason" label={t('rules.reason')} longest={LONGEST} autoFocus />
    </FormDialog>
  )
}
