/** Students who are handed over to another advisor. */
export interface AdvisorName {
  id: number
  name: string
  office: string
  role: 'programAdvisor' | 'supportAdvisor'
}
