import type { TermCode } from '#core/ids'
import type { LineFallbacks } from '#shared/registration/fallbacks'
import type { PreparedSheet } from '#shared/registration/prepared'

/** What is prepared on a run sheet. */
export function useSheetChanges() {
  const { make } = useChanges()
  return {
    prepare: (sheet: PreparedSheet) => make({ kind: 'prepare', ...sheet }),
    agree: (term: TermCode, text: string) => make({ kind: 'agree', term, text }),
    setFallbacks: (line: LineFallbacks) => make({ kind: 'fallbacks', ...line })
  }
}
