import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './site'

const AA = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
/** In the dark only colours differ, so only they are looked at. */
const COLOURS = ['color-contrast', 'link-in-text-block']

/** WCAG 2.2 AA, as far as a machine can tell (axe-core), in the light and in the dark. */
export async function clean(page: Page, label: string) {
  await page.evaluate(() => scrollTo(0, 0))
  await expect(page.locator('iframe')).toHaveCount(0)
  const told = await violations(page, label, (axe) => axe.withTags(AA))
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect(page.locator('.v-theme--night').first()).toBeAttached()
  told.push(...(await violations(page, `${label}, dark`, (axe) => axe.withRules(COLOURS))))
  await page.emulateMedia({ colorScheme: 'light' })
  await expect(page.locator('.v-theme--paper').first()).toBeAttached()
  expect(told).toEqual([])
}

async function violations(page: Page, label: string, rules: (axe: AxeBuilder) => AxeBuilder) {
  // Without frames the mode for pages that have them costs twice the time and finds the same; so does a list of all that
  // passed.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] })
  const { violations: found } = await rules(axe).analyze()
  return found.map(
    (v) =>
      `${label}: ${v.id}: ${v.nodes
        .map((n) => `${n.target.join(' ')} ${n.failureSummary ?? ''}`)
        .slice(0, 3)
        .join(' | ')}`
  )
}

/** The view stands and nothing is on its way. */
export async function settled(page: Page) {
  await expect(page.locator('h1').first()).toBeVisible()
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0)
}
