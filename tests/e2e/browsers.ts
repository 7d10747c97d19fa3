/**
 * Browsers with a profile of their own, each lent to one person of a test at a time. Without a profile a browser reads and
 * compiles the whole application at every address anew; with one it keeps the code, as that of a user does.
 */
import { join } from 'node:path'
import { chromium, type BrowserContext, type LaunchOptions, type Page } from '@playwright/test'

export interface Screen {
  width: number
  height: number
  /** By finger. */
  touch?: boolean
}
const DESK: Screen = { width: 1280, height: 800 }
export const PHONE: Screen = { width: 390, height: 844, touch: true }
/** What a page may have kept, other than the code that it has read. */
const KEPT = 'local_storage,indexeddb,service_workers'

interface Owned {
  address: string
  context: BrowserContext
  isFree: boolean
}

export class Browsers {
  private readonly owned: Owned[] = []
  private launched = 0

  constructor(
    private readonly folder: string,
    private readonly launch: LaunchOptions
  ) {}

  /** A page for somebody whom the browser does not know; `isNew` for one that has read no code either. */
  async page(address: string, { screen = DESK, isNew = false } = {}): Promise<Page> {
    const free = this.owned.find((one) => one.isFree && one.address === address)
    const one = free && !isNew ? free : await this.another(address)
    one.isFree = false
    const page = await one.context.newPage()
    await page.setViewportSize(screen)
    if (screen.touch) {
      const devtools = await one.context.newCDPSession(page)
      await devtools.send('Emulation.setTouchEmulationEnabled', { enabled: true })
    }
    return page
  }

  /** Takes a browser back with all its tabs. */
  async takeBack(context: BrowserContext): Promise<void> {
    const one = this.owned.find((one) => one.context === context)
    if (!one) throw new Error('this browser was not lent')
    const [first, ...tabs] = context.pages()
    await Promise.all(tabs.map((tab) => tab.close()))
    await Promise.all([context.unrouteAll(), context.setOffline(false), context.clearCookies()])
    const devtools = await context.newCDPSession(first!)
    await devtools.send('Storage.clearDataForOrigin', { origin: one.address, storageTypes: KEPT })
    await devtools.detach()
    one.isFree = true
  }

  async close(): Promise<void> {
    await Promise.all(this.owned.map(({ context }) => context.close()))
  }

  private async another(address: string): Promise<Owned> {
    const profile = join(this.folder, `${new URL(address).port}-${this.launched++}`)
    const context = await chromium.launchPersistentContext(profile, {
      ...this.launch,
      baseURL: address,
      viewport: DESK,
      reducedMotion: 'reduce'
    })
    const made = { address, context, isFree: false }
    this.owned.push(made)
    return made
  }
}
