/**
 * A script for the page's head that asks for what every place needs while the application is still on its way. The record
 * is asked for after the session, whose answer says from where on news is heard: nothing is missed in between. What is on
 * offer is asked for as soon as the terms are known (as `termsOnOffer` says which), unless the application has got there.
 */
export const EARLY_READS = `(() => {
  const { pathname } = location
  if (/^\\/(sign-in|shared|welcome)\\b/.test(pathname)) return
  const session = fetch('/api/session')
  const begun = (window.ridgewayBegun = { '/api/session': session })
  for (const path of ['/api/clock', '/api/catalog']) begun[path] = fetch(path)
  const student = /^\\/students\\/(\\d+)(\\/|$)/.exec(pathname)
  if (student) {
    const path = '/api/students/' + student[1]
    begun[path] = session.then((answer) => answer.clone().json()).then((who) => (who ? fetch(path) : undefined))
  }
  const read = (path) => begun[path].then((answer) => (answer.ok ? answer.clone().json() : undefined))
  Promise.all([read('/api/clock'), read('/api/catalog')])
    .then(([clock, catalog]) => {
      if (!clock || !catalog || !begun['/api/catalog']) return
      for (const { code, published, addEndsAt } of catalog.terms)
        if (published && clock.now < addEndsAt)
          for (const part of ['offer', 'seats']) {
            const path = '/api/terms/' + code + '/' + part
            begun[path] = fetch(path)
            begun[path].catch(() => undefined)
          }
    })
    .catch(() => undefined)
  for (const one of Object.values(begun)) one.catch(() => undefined)
  setTimeout(() => delete window.ridgewayBegun, 10000)
})()`
