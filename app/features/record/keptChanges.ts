/** Changes that wait, kept in the browser over reloads; where a browser keeps nothing, they wait in the page alone. */
import { createStore, del, set, values, type UseStore } from 'idb-keyval'
import type { PendingChange } from '#shared/record/changeQueue'

/** What a tab has made is its own to send, while that tab is open. */
interface Kept extends PendingChange {
  tab: string
}

let store: UseStore | undefined
const theStore = () => (store ??= createStore('ridgeway-changes', 'changes'))

export async function keepChange(pending: PendingChange): Promise<void> {
  const kept: Kept = { ...pending, tab: ownTab() }
  // What is kept is data; reactive wrappers are not.
  await quietly(() => set(pending.key, JSON.parse(JSON.stringify(kept)), theStore()))
}

export async function dropChange({ key }: PendingChange): Promise<void> {
  await quietly(() => del(key, theStore()))
}

/**
 * Takes over what tabs of the account have left behind, each lot in the order in which it was made: at once where its tab
 * is gone, and as soon as it goes where it is still open.
 */
export async function takeOverKept(account: number, take: (left: PendingChange[]) => void): Promise<void> {
  const tabs = new Set((await keptOf(account)).map((one) => one.tab))
  await Promise.all(
    [...tabs]
      .filter((tab) => tab !== ownTab())
      .map((tab) =>
        whenGone(tab, async () => {
          const left = (await keptOf(account)).filter((one) => one.tab === tab)
          // Of several tabs that waited for it, the first one has them.
          await Promise.all(left.map(keepChange))
          if (left.length) take(left)
        })
      )
  )
}

async function keptOf(account: number): Promise<Kept[]> {
  const all = (await quietly(() => values<Kept>(theStore()))) ?? []
  return all.filter((one) => one.account === account).sort((a, b) => a.madeAt - b.madeAt)
}

let tab: string | undefined
/** The name of this tab, under which it holds a lock for as long as it is open. */
function ownTab(): string {
  if (tab) return tab
  tab = `${Date.now()}-${Math.random().toString(36).slice(2)}`
  void locks()?.request(lockOf(tab), () => new Promise(() => {}))
  return tab
}
const lockOf = (tab: string) => `ridgeway-tab-${tab}`

/** Pages that are not served safely have no locks: there, whoever comes takes over at once. */
const locks = () => (globalThis.navigator as Partial<Navigator> | undefined)?.locks

async function whenGone(tab: string, work: () => Promise<void>): Promise<void> {
  const held = locks()
  if (held) await held.request(lockOf(tab), work)
  else await work()
}

async function quietly<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work()
  } catch {
    return undefined
  }
}
