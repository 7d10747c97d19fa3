import type { ProgramSpec } from '#core/degree'

/** All programs of the institution, the newest version of each; asked for once. */
export function usePrograms() {
  const programs = useState<ProgramSpec[]>('programs', () => [])
  const failure = ref<string>()

  async function load(): Promise<void> {
    if (programs.value.length) return
    try {
      programs.value = await api<ProgramSpec[]>('/api/programs')
      failure.value = undefined
    } catch (error) {
      if (!(error instanceof Failure)) throw error
      failure.value = error.message
    }
  }
  void load()
  return { programs, failure, load }
}
