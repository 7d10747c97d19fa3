import type { z } from 'zod'
import type { CollegePage } from '#shared/offices/college'

/** A part of what the college is while it is written: kept as typed until that very part is another. */
export function useCollegePart<P extends object, S>(
  page: () => CollegePage,
  schema: z.ZodType<S>,
  partOf: (page: CollegePage) => P,
  saved: () => void
) {
  const notice = useNotice()
  const known = computed(() => JSON.stringify(partOf(page())))
  const draft = ref(JSON.parse(known.value)) as Ref<P>
  const reset = () => (draft.value = JSON.parse(known.value) as P)
  watch(known, reset)
  const isChanged = computed(() => JSON.stringify(draft.value) !== known.value)
  const { busy, problem, errors, send } = useDraftCheck(schema, () => ({
    ...draft.value,
    version: page().version
  }))
  async function save(): Promise<void> {
    const done = await send((body) => api<object>('/api/college', { method: 'POST', body: body as object }))
    if (done) notice.say('Saved.')
    if (done || problem.value.includes('meanwhile')) saved()
  }
  return { draft, isChanged, busy, problem, errors, save, reset }
}
