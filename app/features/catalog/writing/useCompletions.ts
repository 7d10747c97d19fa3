import { ruleCompletions, setCompletions, type CompletionContext } from '#shared/completions'
import { completionsAt } from '#shared/degree/programCompletion'

/** What may follow a text of one of our languages, with what there is in the catalog. */
export function useCompletions() {
  const college = useCollege()
  const context = computed((): CompletionContext | undefined => {
    const { catalogContext, view } = college
    return (
      catalogContext &&
      view && { catalog: catalogContext.catalog, lists: view.lists, categories: view.categories }
    )
  })
  return {
    ofProgram: (before: string) => context.value && completionsAt(before, context.value),
    ofRule: (before: string) => context.value && ruleCompletions(before, context.value),
    ofSet: (before: string) => context.value && setCompletions(before, context.value)
  }
}
