import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type * as Axe from 'axe-core'
import type { Page } from '@playwright/test'
import { expect } from './site'

const SOURCE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')
const AA = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
/** In the dark only colours differ, so only they are looked at. */
const COLOURS = { type: 'rule' as const, values: ['color-contrast', 'link-in-text-block'] }

/** What axe-core needs of the page. */
async function ready(page: Page): Promise<void> {
  await page.evaluate(() => scrollTo(0, 0))
  await expect(page.locator('iframe')).toHaveCount(0)
  await page.evaluate(SOURCE)
}

/** As `clean`, of a view whose colours have been looked at in another size. */
export async function wellMade(page: Page, label: string): Promise<void> {
  await ready(page)
  const rules = Object.fromEntries(COLOURS.values.map((rule) => [rule, { enabled: false }]))
  expect(await violations(page, label, { runOnly: AA, rules })).toEqual([])
}

/** WCAG 2.2 AA, as far as a machine can tell (axe-core), in the light and in the dark. */
export async function clean(page: Page, label: string): Promise<void> {
  await ready(page)
  const told = await violations(page, label, { runOnly: AA })
  await inTheme(page, 'dark', 'night')
  told.push(...(await violations(page, `${label}, dark`, { runOnly: COLOURS })))
  await inTheme(page, 'light', 'paper')
  expect(told).toEqual([])
}

/** The application follows a little later; a page without it at once. */
async function inTheme(page: Page, colorScheme: 'light' | 'dark', theme: string): Promise<void> {
  const isApplication = (await page.locator('.v-application').count()) > 0
  await page.emulateMedia({ colorScheme })
  if (isApplication) await expect(page.locator(`.v-theme--${theme}`).first()).toBeAttached()
}

async function violations(page: Page, label: string, asked: Axe.RunOptions) {
  const found = await page.evaluate(
    // Preloading serves rules about media and orientation alone, of which there is nothing here to find.
    async (options) => (await (globalThis as { axe?: typeof Axe }).axe!.run(document, options)).violations,
    { ...asked, resultTypes: ['violations'], preload: false } as Axe.RunOptions
  )
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
