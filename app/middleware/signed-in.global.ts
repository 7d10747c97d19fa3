/** Everything but the sign-in page, a week that somebody shared, and an invitation is for people who are signed in. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (/^\/(shared|welcome)\//.test(to.path)) return
  const session = useWho()
  try {
    await session.know()
  } catch (error) {
    if (error instanceof Failure)
      return abortNavigation(createError({ statusCode: 503, message: error.message, fatal: true }))
    throw error
  }
  if (!session.who && to.path !== '/sign-in')
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { next: to.fullPath } })
  if (session.who && session.needsSecondStep && to.path !== '/account') return navigateTo('/account')
  // Students read the catalog beside their own degree.
  if (session.who?.student && /^\/courses(\/|$)/.test(to.path))
    return navigateTo({ path: `/students/${session.who.student}${to.path}`, query: to.query })
  if (session.who && to.path === '/sign-in') return navigateTo(placeWanted(to.query.next, session.who))
  if (session.who && to.path === '/') return navigateTo(session.home)
  if (session.who && to.matched.length && !isPlaceOf(to.path, session.who))
    return abortNavigation(createError({ statusCode: 403, message: 'Not for this person.', fatal: true }))
})
