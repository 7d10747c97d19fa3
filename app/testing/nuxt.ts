/** What Nuxt imports by itself, for stores and composables that are tested without it. */
import { createPinia, defineStore, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import * as vue from 'vue'
import { heldByViews } from '../ui/heldByViews'
import { newestAnswer } from '../ui/newestAnswer'
import type { Failure as TheFailure } from '../ui/useApi'
import { useRead } from '../ui/useRead'

/** As the one of `useApi`, which cannot be loaded where there is no window. */
export class Failure extends Error implements Pick<TheFailure, 'status' | 'problem' | 'retryAfterMs'> {
  constructor(
    readonly status: number,
    readonly problem: { code: string; message: string; fields?: { field: string; message: string }[] },
    readonly retryAfterMs?: number
  ) {
    super(problem.message)
  }
}

const { computed, ref, shallowRef, watch, watchEffect, onMounted, toRef } = vue
const ALWAYS = {
  ...{ computed, ref, shallowRef, watch, watchEffect, onMounted, toRef },
  onUnmounted: () => undefined,
  defineStore,
  heldByViews,
  newestAnswer,
  useRead,
  Failure
}
// Stores are defined when their file is read.
Object.assign(globalThis, ALWAYS)

/** Begins with empty stores, and with these in place of what else is imported by itself. */
export function anew(more: Readonly<Record<string, unknown>> = {}): void {
  vi.unstubAllGlobals()
  setActivePinia(createPinia())
  for (const [name, one] of Object.entries({ ...ALWAYS, ...more })) vi.stubGlobal(name, one)
}

/** Answers of a server that the test gives, in any order. */
export function answering() {
  const asked: {
    path: string
    options: Record<string, unknown>
    answer: (body: unknown) => Promise<void>
    refuse: (status: number, message?: string) => Promise<void>
  }[] = []
  const api = (path: string, options: Record<string, unknown> = {}) =>
    new Promise((resolve, reject) => {
      asked.push({
        path,
        options,
        answer: (body) => (resolve(body), settled()),
        refuse: (status, message = 'It was refused.') => (
          reject(new Failure(status, { code: 'refused', message })),
          settled()
        )
      })
    })
  return { asked, api }
}

/** All that follows from what has been answered has been done. */
export async function settled(): Promise<void> {
  for (let i = 0; i < 20; i++) await Promise.resolve()
  await vue.nextTick()
}

/** As within an application, where what is provided is asked for. */
export const inApp = <T>(work: () => T): T => vue.createApp({}).runWithContext(work)
