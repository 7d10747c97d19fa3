/** The places of whoever is signed in, before anything about one student is known. */
export function useOwnPlaces() {
  const session = useWho()
  const ofStaff = useStaffPlaces()
  return computed((): Place[] => {
    if (!session.who) return []
    return session.who.student ? placesOfStudent(session.who.student) : ofStaff.value
  })
}
