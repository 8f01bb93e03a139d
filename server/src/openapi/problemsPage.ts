import { problems } from '@pelrin/contract/messages'

const plain = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;')

/** What each problem says, where its `type` leads: a page for whoever writes a client, with nothing to run on it. */
export const problemsPage = (): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Problems – Pelrin API</title>
</head>
<body>
<main>
<h1>Problems</h1>
<p>What is refused is answered as application/problem+json (RFC 9457). Its <code>type</code> leads here, its <code>code</code> is the
heading, its <code>detail</code> the sentence, with values in place of what stands in braces. <code>fields</code> says the same of each
field; <code>requestId</code> finds it in the log.</p>
<dl>
${Object.entries(problems)
  .map(([code, sentence]) => `<dt id="${code}"><code>${code}</code></dt>\n<dd>${plain(sentence)}</dd>`)
  .join('\n')}
</dl>
</main>
</body>
</html>`
