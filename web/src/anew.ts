/**
 * A page that was loaded before its server was replaced no longer finds its parts there: it is loaded anew at the place it was going to.
 * Not when the server is away, and not when that place is what was just loaded: that would go on for ever.
 */
export async function loadAnew(
  fault: unknown,
  to: string,
  { pathname, search, hash }: Pick<Location, 'pathname' | 'search' | 'hash'>,
  go: (path: string) => void,
): Promise<void> {
  if (
    !/dynamically imported module|module script|Unable to preload/i.test(String(fault)) ||
    to === pathname + search + hash
  )
    return
  const there = await fetch('/', { method: 'HEAD' }).then(
    (answer) => answer.ok,
    () => false,
  )
  if (there) go(to)
}
