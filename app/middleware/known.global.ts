/** Who is not signed in goes to sign in; a shop without an owner makes one. A client's page needs neither. */
export default defineNuxtRouteMiddleware(async to => {
  if (to.path.startsWith('/answer/')) return
  const session = useSession()
  if (!session.known) await session.load()
  if (!session.shop) return to.path === '/first' ? undefined : navigateTo('/first')
  if (!session.person && to.path !== '/sign-in') return navigateTo('/sign-in')
  if (session.person?.mustChange && to.path !== '/password') return navigateTo('/password')
  if (session.person && (to.path === '/sign-in' || to.path === '/first')) return navigateTo('/')
})
