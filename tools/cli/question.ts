/** Catalog and programs of an audit, from their files. */
import type { Catalog, Term } from '#core/catalog'
import type { Program } from '#core/degree'
import type { Complaints } from './files'
import { judgeProgram, readCatalog, readLists, readProgram, textOf, together } from './files'

export interface Named {
  catalogs: readonly string[]
  programs: readonly string[]
  lists: readonly string[]
}

export interface Question {
  catalog: Catalog
  terms: Term[]
  programs: Program[]
}

/** Undefined when something is wrong, which is noted. */
export function loadQuestion(
  { catalogs, programs, lists }: Named,
  complaints: Complaints
): Question | undefined {
  const contents = catalogs.flatMap((file) => readCatalog(file, textOf(file), complaints) ?? [])
  const named = lists.flatMap((file) => readLists(file, textOf(file), complaints))
  if (complaints.lines.length) return undefined
  const whole = together(contents, named)
  const compiled = programs.flatMap((file) => {
    const spec = readProgram(file, textOf(file), complaints)
    return (spec && judgeProgram(file, spec, whole, complaints)) ?? []
  })
  if (complaints.lines.length) return undefined
  return { catalog: whole.catalog, terms: whole.terms, programs: compiled }
}
