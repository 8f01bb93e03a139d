import { expect, type Page } from '@playwright/test'
import { endWord } from './bench.ts'

/** From the stand to the job, once what was typed to find the bike is over. */
export async function toJob(page: Page): Promise<void> {
  await endWord(page)
  await page.keyboard.press('j')
  await expect(page.getByRole('button', { name: /^Begin/ })).toBeVisible()
}

export async function begin(page: Page, reason = '1'): Promise<void> {
  await page.keyboard.press(reason)
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Step 1 of \d+/)).toBeVisible()
}

/** Space does a step; what it asks for is typed, since a tick is no answer there and puts the keys where that is done. */
export async function onward(page: Page): Promise<void> {
  const asked = page.getByRole('region', {
    name: /^(The old chain|The new chain|How it clicked|Which way it ran|The length on the bike)$/,
  })
  const asks = await asked.isVisible()
  await page.keyboard.press('Space')
  if (!asks) return
  const count = asked.getByRole('textbox')
  if (await count.isVisible()) {
    await expect(count).toBeFocused()
    await page.keyboard.type('112')
    await page.keyboard.press('Enter')
  } else await page.keyboard.press((await asked.getByRole('button', { name: /^firmly/ }).isVisible()) ? '1' : 'Enter')
}

/** Space by Space to the closing; what has to be decided on the way is looked up by what the step says. */
export async function work(page: Page, decide: Record<string, () => Promise<void>> = {}): Promise<string[]> {
  const said: string[] = []
  const decided = new Set<string>()
  for (let i = 0; i < 70; i++) {
    if (await page.getByRole('heading', { name: 'Everything is done. Close the job' }).isVisible()) return said
    const what = (await page.getByRole('heading', { level: 2 }).first().textContent()) ?? ''
    for (const [part, act] of Object.entries(decide))
      if (what.includes(part) && !decided.has(part)) {
        decided.add(part)
        await act()
      }
    said.push(what)
    await onward(page)
    await expect(page.getByRole('heading', { level: 2 }).first()).not.toHaveText(what)
  }
  throw new Error('a job of more than seventy steps')
}
