/**
 * How long a change of the route takes to be audited anew and drawn, in Chromium: from the input to the
 * next frame, as the browser's own event timing tells it (W3C Event Timing; in steps of 8 ms). The flow
 * picture follows a frame later and is not in it. Opening the list of courses and undoing count as changes.
 */
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium, type Locator, type Page } from '@playwright/test'
import { DEMO_PASSWORD } from '../demo/staff'
import { freePort, startMariadb } from './mariadb'
import { prepareDatabase, startSite } from './site'

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)))
const TIMES = 12
/** Milliseconds: a change is sent, answered and drawn within it. */
const PAUSE = 300

export const isBuilt = () => existsSync(join(ROOT, '.output', 'server'))

export async function redraw(): Promise<string[]> {
  const folder = mkdtempSync(join(tmpdir(), 'ridgeway-bench-db-'))
  const server = await startMariadb(folder)
  try {
    const url = await server.database('bench')
    await prepareDatabase(url, () => undefined, { demo: true })
    const site = await startSite(ROOT, await freePort(), url, { demo: true })
    const browser = await launched()
    const page = await browser.newPage({ baseURL: site.address, viewport: { width: 1280, height: 800 } })
    const times = inOrder(await measured(page))
    const frames = inOrder(await lifting(page))
    await browser.close()
    await site.stop()
    return [
      `change of the route audited and drawn on Degree, in Chromium: ${times}`,
      `frames while a course is lifted from term to term on Route: ${frames}`
    ]
  } finally {
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

export const launched = () =>
  chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking'
    ]
  })

async function measured(page: Page): Promise<number[]> {
  await page.request.post('/api/session', { data: { name: 'imke.varga', password: DEMO_PASSWORD } })
  await page.goto('/students/1/degree')
  await page.evaluate(() => {
    const seen: number[] = []
    Object.assign(window, { seen })
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (entry.name === 'click') seen.push(entry.duration)
    }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit)
  })
  // Each click is left alone until it is drawn: looking for the next button would cost the page time.
  const clickAlone = async (button: Locator) => {
    await button.click()
    await page.waitForTimeout(PAUSE)
  }
  for (let i = 0; i < TIMES; i++) {
    await clickAlone(page.getByRole('button', { name: /credits? needed ·/ }).first())
    await clickAlone(page.getByRole('button', { name: /^Add / }).first())
    await clickAlone(page.getByRole('button', { name: 'Undo' }))
  }
  return page.evaluate(() => (window as unknown as { seen: number[] }).seen)
}

export function inOrder(times: number[]): string {
  const sorted = times.toSorted((a, b) => a - b)
  const at = (share: number) =>
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!.toFixed(1)
  return `median ${at(0.5)} ms, p95 ${at(0.95)} ms, most ${at(1)} ms, ${sorted.length} of them`
}

/** Script and layout of each step with a course in the hand, as the page spends them before a frame. */
async function lifting(page: Page): Promise<number[]> {
  await page.goto('/students/1/route')
  await page.locator('[data-course="HYDR 330"]').focus()
  await page.keyboard.press('Space')
  const times = await page.evaluate(async (steps) => {
    const found: number[] = []
    const board = document.querySelector('.board')!
    for (let i = 0; i < steps; i++) {
      const key = i % 8 < 4 ? 'ArrowRight' : 'ArrowLeft'
      const held = document.activeElement ?? board
      await new Promise(requestAnimationFrame)
      const from = performance.now()
      held.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
      await Promise.resolve()
      await new Promise((done) => queueMicrotask(() => done(undefined)))
      document.body.getBoundingClientRect()
      found.push(performance.now() - from)
    }
    return found
  }, 80)
  await page.keyboard.press('Escape')
  return times
}
