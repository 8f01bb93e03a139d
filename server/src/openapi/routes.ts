import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import Router from '@koa/router'
import type { RequestState } from '../http/request.ts'
import { openApiDocument } from './document.ts'
import { problemsPage } from './problemsPage.ts'

const PAGE = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Pelrin API</title>
<link rel="stylesheet" href="/docs/api/swagger-ui.css">
</head>
<body>
<div id="reader"></div>
<script src="/docs/api/swagger-ui-bundle.js"></script>
<script src="/docs/api/open.js"></script>
</body>
</html>`

const OPEN = `SwaggerUIBundle({ url: '/api/v1/openapi.json', dom_id: '#reader', deepLinking: true, supportedSubmitMethods: [] })`

/** The OpenAPI document, a page to read it on, and one that says what each problem is. */
export function openApiRouter(): Router<RequestState> {
  const router = new Router<RequestState>()
  const document = openApiDocument()
  const assets = dirname(createRequire(import.meta.url).resolve('swagger-ui-dist/package.json'))
  router.get('/api/v1/openapi.json', (ctx) => {
    ctx.body = document
  })
  const problems = problemsPage()
  router.get('/docs/problems', (ctx) => {
    ctx.type = 'html'
    ctx.body = problems
  })
  router.get('/docs/api', (ctx) => {
    ctx.type = 'html'
    ctx.body = PAGE
  })
  router.get('/docs/api/open.js', (ctx) => {
    ctx.type = 'js'
    ctx.body = OPEN
  })
  for (const [file, type] of [
    ['swagger-ui.css', 'css'],
    ['swagger-ui-bundle.js', 'js'],
  ] as const)
    router.get(`/docs/api/${file}`, async (ctx) => {
      ctx.type = type
      ctx.body = await readFile(join(assets, file))
    })
  return router
}
