/** Changes that wait, kept in the browser over reloads; where a browser keeps nothing, they wait in the page alone. */
import { createStore, del, set, values, type UseStore } from 'idb-keyval'
import type { PendingChange } from '#shared/record/changeQueue'

let store: UseStore | undefined
const theStore = () => (store ??= createStore('ridgeway-changes', 'changes'))

export async function keepChange(pending: PendingChange): Promise<void> {
  // What is kept is data; reactive wrappers are not.
  await quietly(() => set(pending.key, JSON.parse(JSON.stringify(pending)), theStore()))
}

export async function dropChange({ key }: PendingChange): Promise<void> {
  await quietly(() => del(key, theStore()))
}

/** Those of an account, in the order in which they were made. */
export async function keptChanges(account: number): Promise<PendingChange[]> {
  const all = (await quietly(() => values<PendingChange>(theStore()))) ?? []
  return all.filter((one) => one.account === account).sort((a, b) => a.madeAt - b.madeAt)
}

async function quietly<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work()
  } catch {
    return undefined
  }
}
