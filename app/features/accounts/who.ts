import type { Who } from '#shared/accounts/responses'

/** Who is signed in. */
export const useWho = defineStore('who', () => {
  const who = ref<Who | null>(null)
  const asked = ref(false)

  /** Asks the server once. */
  async function know(): Promise<void> {
    if (asked.value) return
    who.value = await api<Who | null>('/api/session')
    asked.value = true
  }

  async function signIn(name: string, password: string): Promise<void> {
    who.value = await api<Who>('/api/session', { method: 'POST', body: { name, password } })
    asked.value = true
  }

  async function signOut(): Promise<void> {
    await api('/api/session', { method: 'DELETE' })
    who.value = null
    useStudent().forget()
  }

  const home = computed(() => homeOf(who.value))

  return { who, home, know, signIn, signOut }
})
