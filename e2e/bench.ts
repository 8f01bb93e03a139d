import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

export async function signIn(page: Page, name = 'tove', password = 'causeway-1'): Promise<void> {
  await page.goto('/')
  await page.getByLabel('Name').fill(name)
  await page.getByLabel('Password').fill(password)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^In today/ })).toBeVisible()
}

/** Finds a bike by typing anywhere, as on the stand, and puts it there. */
export async function putOnStand(page: Page, text: string, heading: string): Promise<void> {
  await page.keyboard.type(text, { delay: 40 })
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible()
  await expect(page.getByText(/on the stand since/).first()).toBeVisible()
}

/** No violation of WCAG 2.2 AA that a machine can find. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze()
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.target.join(' ')).join(' | ')}`)).toEqual(
    [],
  )
}

/** From the stand to the first field of Measure, ready to be typed into. */
export async function measure(page: Page): Promise<void> {
  await page.keyboard.press('m')
  await expect(page.getByRole('textbox', { name: 'Spot 1' })).toBeFocused()
}
