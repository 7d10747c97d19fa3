import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect } from './site'

/** WCAG 2.2 AA, as far as a machine can tell (axe-core). In the dark only colours differ, so only they are looked at. */
export async function clean(page: Page, label: string) {
  await page.evaluate(() => scrollTo(0, 0))
  await expect(page.locator('iframe')).toHaveCount(0)
  // Without frames the mode for pages that have them costs twice the time and finds the same.
  const axe = new AxeBuilder({ page }).setLegacyMode(true)
  const rules = label.endsWith('dark')
    ? axe.withRules(['color-contrast', 'link-in-text-block'])
    : axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
  const { violations } = await rules.analyze()
  const told = violations.map(
    (v) =>
      `${label}: ${v.id}: ${v.nodes
        .map((n) => `${n.target.join(' ')} ${n.failureSummary ?? ''}`)
        .slice(0, 3)
        .join(' | ')}`
  )
  expect(told).toEqual([])
}

/** The view stands and nothing is on its way. */
export async function settled(page: Page) {
  await expect(page.locator('h1').first()).toBeVisible()
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0)
}
