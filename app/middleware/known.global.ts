/**
 * Who is not signed in goes to sign in, on a tablet of the shop by a name; a shop without an owner makes one. A
 * client's page and the one for a device that is new here need neither.
 */
export default defineNuxtRouteMiddleware(async to => {
  if (to.path.startsWith('/answer/') || to.path === '/trust') return
  const session = useSession()
  if (!session.known) await session.load()
  if (!session.shop) return to.path === '/first' ? undefined : navigateTo('/first')
  const doors = session.tablet ? ['/door', '/sign-in'] : ['/sign-in']
  if (!session.person && !doors.includes(to.path)) return navigateTo(doors[0])
  if (session.person?.mustChange && to.path !== '/password') return navigateTo('/password')
  if (session.person && ['/sign-in', '/first', '/door'].includes(to.path)) return navigateTo('/')
})
