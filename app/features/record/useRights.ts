import type { StudentView } from '#shared/record/responses'
import { aboutThem } from '#shared/voice'

/** What the person who looks at a record may do there. */
export function useRights(view: Readonly<Ref<StudentView | undefined>>) {
  const own = computed(() => view.value?.relation === 'self')
  /** A sentence written to the student, as whoever looks has to read it. */
  const say = (text: string): string => (own.value || !view.value ? text : aboutThem(text))
  /** Whether the person who looks may change the route itself. */
  const mayChangeRoute = computed(
    () => own.value || (view.value?.relation === 'programAdvisor' && view.value.route.advisorMayEdit)
  )
  /** Whether they may suggest changes of it, and whether that is what they do now. */
  const maySuggest = computed(
    () => view.value?.relation === 'programAdvisor' || view.value?.relation === 'supportAdvisor'
  )
  const suggests = ref(false)
  const isSuggesting = computed(() => maySuggest.value && suggests.value)
  /** Whether the route's tools are at hand: for changes, or for suggestions of them. */
  const mayEditRoute = computed(() => mayChangeRoute.value || isSuggesting.value)
  /** Whether the person who looks may grant exceptions. */
  const mayGrant = computed(
    () => view.value?.relation === 'programAdvisor' || view.value?.relation === 'registrar'
  )
  return { own, say, mayChangeRoute, maySuggest, suggests, isSuggesting, mayEditRoute, mayGrant }
}
