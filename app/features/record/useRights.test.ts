import { beforeEach, expect, it } from 'vitest'
import { shallowRef } from 'vue'
import type { StudentView } from '#shared/record/responses'
import { anew } from '../../testing/nuxt'
import { useRights } from './useRights'

beforeEach(() => anew())

const rightsOf = (relation: StudentView['relation'], advisorMayEdit = false) => {
  const view = { relation, route: { advisorMayEdit } } as unknown as StudentView
  return useRights(shallowRef<StudentView | undefined>(view))
}

it('lets a student change the route, and be spoken to', () => {
  const { own, mayChangeRoute, maySuggest, mayEditRoute, mayGrant, say } = rightsOf('self')
  expect([own.value, mayChangeRoute.value, maySuggest.value, mayEditRoute.value, mayGrant.value]).toEqual([
    true,
    true,
    false,
    true,
    false
  ])
  expect(say('Your term is open.')).toBe('Your term is open.')
})

it('lets an advisor change a route only where the student allows it, and suggest without', () => {
  const without = rightsOf('programAdvisor')
  expect([without.mayChangeRoute.value, without.mayEditRoute.value]).toEqual([false, false])
  without.suggests.value = true
  expect([without.isSuggesting.value, without.mayEditRoute.value, without.mayChangeRoute.value]).toEqual([
    true,
    true,
    false
  ])
  expect(rightsOf('programAdvisor', true).mayChangeRoute.value).toBe(true)
  // What is allowed is allowed to the advisor of the program.
  expect(rightsOf('supportAdvisor', true).mayChangeRoute.value).toBe(false)
})

it('lets the program advisor and the registrar grant exceptions, and nobody else', () => {
  const may = (['self', 'programAdvisor', 'supportAdvisor', 'registrar'] as const).map(
    (relation) => rightsOf(relation).mayGrant.value
  )
  expect(may).toEqual([false, true, false, true])
})

it('may nothing of a record that is not there', () => {
  const { own, mayEditRoute, maySuggest, say } = useRights(shallowRef<StudentView>())
  expect([own.value, mayEditRoute.value, maySuggest.value]).toEqual([false, false, false])
  expect(say('Your term is open.')).toBe('Your term is open.')
})
