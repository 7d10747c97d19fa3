import type { SignedIn, Who } from '#shared/accounts/responses'

/** Who is signed in. */
export const useWho = defineStore('who', () => {
  const who = ref<Who | null>(null)
  const asked = ref(false)
  /** Nothing else is answered until a second step is set up. */
  const needsSecondStep = ref(false)

  /** Asks the server once. */
  async function know(): Promise<void> {
    if (asked.value) return
    take(await api<SignedIn | null>('/api/session'))
  }

  function take(answer: SignedIn | null): void {
    asked.value = true
    if (!answer) {
      who.value = null
      useNews().leave()
      return
    }
    const { news, needsSecondStep: needs, ...person } = answer
    needsSecondStep.value = needs
    if (who.value?.id !== person.id) who.value = person
    useNews().listen(person.id, news)
  }

  /** Whether the same person is still signed in; asks the server. */
  async function stillThere(): Promise<boolean> {
    const answer = await api<SignedIn | null>('/api/session')
    return answer !== null && answer.id === who.value?.id
  }

  async function signIn(given: { name: string; password: string; code?: string | undefined }): Promise<void> {
    take(await api<SignedIn>('/api/session', { method: 'POST', body: given }))
  }

  /** By a link, which sets the password; nobody is in yet where a second step is asked for. @throws Failure */
  async function join(key: string, next: string): Promise<void> {
    take(await api<SignedIn | null>(`/api/welcome/${key}`, { method: 'POST', body: { next } }))
  }

  async function signOut(): Promise<void> {
    await api('/api/session', { method: 'DELETE' })
    take(null)
    useStudent().forget()
  }

  const home = computed(() => homeOf(who.value))

  return { who, needsSecondStep, home, know, stillThere, signIn, join, signOut }
})
