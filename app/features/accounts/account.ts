import type { SignedInAt } from '#shared/accounts/responses'

/** Where somebody is signed in, and their password. */
export const useAccount = defineStore('account', () => {
  const sessions = shallowRef<SignedInAt[]>([])
  const failure = ref<string>()
  const ready = ref(false)

  async function load(): Promise<void> {
    try {
      ;[sessions.value] = await Promise.all([
        api<SignedInAt[]>('/api/account/sessions'),
        useCollege().load(),
        useClock().sync()
      ])
      failure.value = undefined
      ready.value = true
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }

  /** Ends one session, or all others. @throws Failure */
  async function end(session?: SignedInAt): Promise<void> {
    await api(`/api/account/sessions${session ? `/${session.id}` : ''}`, { method: 'DELETE' })
    await load()
  }

  /** @throws Failure */
  async function changePassword(present: string, next: string): Promise<void> {
    await api('/api/account/password', { method: 'POST', body: { present, next } })
    await load()
  }

  return { sessions, failure, ready, load, end, changePassword }
})
