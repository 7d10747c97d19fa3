import type { TermCode } from '#core/ids'
import type { OpeningSaid } from '#shared/offices/requests'
import type { SaidPrices } from '#shared/offices/prices'
import type {
  NewTermSaid,
  OfferCopied,
  PublicationEffect,
  TermPlan,
  TermRow,
  TermSaid
} from '#shared/offices/terms'

/** Terms as the registrar makes and publishes them. What is refused is thrown as a Failure. */
export const useTerms = defineStore('terms', () => {
  const rows = shallowRef<TermRow[]>()
  const failure = ref<string>()
  const load = followed(
    async () => {
      try {
        rows.value = await api<TermRow[]>('/api/terms')
        failure.value = undefined
      } catch (error) {
        if (!(error instanceof Failure)) throw error
        failure.value = error.message
      }
    },
    ({ kind }) => kind === 'term'
  )
  async function changing<T>(where: string, body: object, method: 'POST' | 'DELETE' = 'POST'): Promise<T> {
    const answer = await api<T>(where, { method, ...(method === 'POST' ? { body } : {}) })
    await load()
    return answer
  }
  const at = (code: TermCode) => `/api/terms/${code}`

  return {
    rows,
    failure,
    load,
    read: (code: TermCode) => api<TermPlan>(at(code)),
    make: (like: TermCode[]) => changing<{ terms: TermCode[] }>('/api/terms', { like }),
    makeOne: (said: NewTermSaid) => changing<{ term: TermCode }>('/api/terms/new', said),
    save: (code: TermCode, said: TermSaid) => changing<{ told: number }>(at(code), said),
    price: (code: TermCode, said: { version: number; prices: SaidPrices | null }) =>
      changing<{ version: number }>(`${at(code)}/prices`, said),
    drop: (code: TermCode) => changing(at(code), {}, 'DELETE'),
    lookAtCopy: (code: TermCode, from: TermCode) => api<OfferCopied>(`${at(code)}/copy`, { query: { from } }),
    copyOffer: (code: TermCode, from: TermCode) => changing<OfferCopied>(`${at(code)}/copy`, { from }),
    copyOpenings: (code: TermCode, from: TermCode) =>
      changing<{ made: number; passed: number }>(`${at(code)}/openings`, { from }),
    makeOpening: (said: OpeningSaid) => changing<{ told: number }>('/api/openings', said),
    dropOpening: (opening: number) => changing<{ told: number }>(`/api/openings/${opening}`, {}, 'DELETE'),
    effect: (code: TermCode) => api<PublicationEffect>(`${at(code)}/publication`),
    publish: (code: TermCode) => changing<{ told: number }>(`${at(code)}/publication`, {})
  }
})
