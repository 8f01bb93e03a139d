import escapeHtml from 'escape-html'
import type { SendMailOptions } from 'nodemailer'
import type { MailSettingsRow } from './models.ts'

/** A mail as it is written: paragraphs, what goes along, and how to have no more of them. */
export interface Letter {
  /** The same each time it is sent: who gets it twice sees that it is one. */
  readonly reference: string
  readonly to: { readonly name: string; readonly address: string }
  readonly subject: string
  readonly language: string
  readonly paragraphs: readonly string[]
  readonly stop: { readonly sentence: string; readonly link: string } | null
  readonly sheets: readonly { readonly name: string; readonly pdf: Buffer }[]
}

/** A letter as a mail: the same words as plain text and as HTML, in which nothing anybody typed is markup. */
export function mailOf({ fromName, fromAddress }: MailSettingsRow, letter: Letter): SendMailOptions {
  const { reference, to, subject, language, paragraphs, stop, sheets } = letter
  const domain = fromAddress.slice(fromAddress.lastIndexOf('@') + 1)
  return {
    from: { name: fromName, address: fromAddress },
    to,
    subject,
    messageId: `<${reference}@${domain}>`,
    text: [...paragraphs, ...(stop ? [`${stop.sentence}\n${stop.link}`] : [])].join('\n\n'),
    html: `<!doctype html><html lang="${escapeHtml(language)}"><body style="font:16px/1.5 sans-serif;max-width:36em">${[
      ...paragraphs.map((text) => `<p>${escapeHtml(text).replaceAll('\n', '<br>')}</p>`),
      ...(stop
        ? [
            `<p style="font-size:13px;color:#555"><a href="${escapeHtml(stop.link)}">${escapeHtml(stop.sentence.replace(/\s*:$/, ''))}</a></p>`,
          ]
        : []),
    ].join('')}</body></html>`,
    attachments: sheets.map(({ name, pdf }) => ({ filename: name, content: pdf, contentType: 'application/pdf' })),
    // Nobody is to get an answer of a machine to a machine.
    headers: {
      'Auto-Submitted': 'auto-generated',
      ...(stop ? { 'List-Unsubscribe': `<${stop.link}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' } : {}),
    },
  }
}
