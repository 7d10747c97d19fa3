/**
 * Processes of our own, kept running: one that ends by itself is started again, after longer and longer waits, and all
 * are put down together, those that are only just starting too.
 */
import { spawn, type ChildProcess, type SpawnOptions } from 'node:child_process'

/** What went wrong, in one sentence for the person at the terminal. */
export class PlainError extends Error {}

/** What made an error in the end: the words of the database itself, where it refused a statement. */
export function rootOf(error: unknown): Error {
  let inner = error as Error
  while (inner.cause instanceof Error) inner = inner.cause
  return inner
}

/** It was told to stop while it started. */
export class Stopped extends PlainError {
  constructor() {
    super('Stopped while starting.')
  }
}

export interface Kept {
  pid: () => number | undefined
  /** Puts it down and waits until it has ended. */
  stop: () => Promise<void>
}

export interface Keeping {
  what: string
  command: readonly [file: string, ...args: string[]]
  options: SpawnOptions
  /** Resolves once it answers; rejects when it will not. */
  ready: (child: ChildProcess) => Promise<void>
  /** Told of each process, at once. */
  began?: (child: ChildProcess) => void
  say?: ((line: string) => void) | undefined
  /** Ends it all. */
  signal?: AbortSignal | undefined
}

/** Waits before it is started again: doubled each time, to the longest; one that ran for a while starts anew. */
const FIRST_WAIT_MS = 200
const LONGEST_WAIT_MS = 30_000
const RAN_WELL_MS = 60_000

/** Starts a process and keeps it running until it is stopped. @throws Stopped, or what `ready` throws at first */
export async function keepRunning(keeping: Keeping): Promise<Kept> {
  const keeper = new Keeper(keeping)
  try {
    await keeper.begin()
  } catch (error) {
    await keeper.stop()
    throw error
  }
  void keeper.keep()
  return { pid: () => keeper.pid, stop: () => keeper.stop() }
}

class Keeper {
  private child: ChildProcess | undefined
  private gone = Promise.resolve()
  private stopping = false
  private wake: (() => void) | undefined
  private startedAt = 0

  constructor(private readonly keeping: Keeping) {}

  get pid(): number | undefined {
    return this.child?.pid
  }

  async begin(): Promise<void> {
    const { command, options, ready, began, signal } = this.keeping
    const [file, ...args] = command
    if (this.stopping || signal?.aborted) throw new Stopped()
    // In a group of its own: Ctrl+C at the terminal reaches us alone.
    const child = spawn(file, args, { ...options, detached: true })
    this.child = child
    this.startedAt = Date.now()
    const gone = new Promise<void>((resolve) => {
      child.once('exit', () => resolve())
      child.once('error', () => resolve())
    })
    this.gone = gone
    began?.(child)
    const stopped = new Promise<never>((_, reject) => {
      const end = () => reject(new Stopped())
      signal?.addEventListener('abort', end, { once: true })
      void gone.then(() => signal?.removeEventListener('abort', end))
    })
    await Promise.race([ready(child), stopped])
  }

  async stop(): Promise<void> {
    this.stopping = true
    this.wake?.()
    this.child?.kill('SIGTERM')
    await this.gone
  }

  /** Starts it again each time it ends, until it is stopped. */
  async keep(): Promise<void> {
    const { what, say } = this.keeping
    let wait = FIRST_WAIT_MS
    for (;;) {
      await this.gone
      if (this.stopping) return
      if (Date.now() - this.startedAt > RAN_WELL_MS) wait = FIRST_WAIT_MS
      say?.(`${what} ended by itself; starting it again.`)
      await this.sleep(wait)
      wait = Math.min(2 * wait, LONGEST_WAIT_MS)
      try {
        await this.begin()
      } catch (error) {
        if (this.stopping) return
        say?.(`${what} did not start: ${(error as Error).message}`)
        this.child?.kill('SIGTERM')
      }
    }
  }

  /** Until the time is over, or it is to stop. */
  private sleep(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, ms)
      this.wake = () => {
        clearTimeout(timer)
        resolve()
      }
    })
  }
}

/** Runs a command to its end. @throws Stopped */
export async function runToEnd(
  command: readonly [file: string, ...args: string[]],
  { signal }: { signal?: AbortSignal | undefined } = {}
): Promise<{ code: number; output: string }> {
  const [file, ...args] = command
  if (signal?.aborted) throw new Stopped()
  const child = spawn(file, args, { stdio: ['ignore', 'pipe', 'pipe'], detached: true })
  const end = () => child.kill('SIGTERM')
  signal?.addEventListener('abort', end, { once: true })
  let output = ''
  child.stdout.on('data', (part) => (output += String(part)))
  child.stderr.on('data', (part) => (output += String(part)))
  const code = await new Promise<number>((resolve) => {
    child.once('error', () => resolve(127))
    child.once('close', (one) => resolve(one ?? 1))
  })
  signal?.removeEventListener('abort', end)
  if (signal?.aborted) throw new Stopped()
  return { code, output }
}
