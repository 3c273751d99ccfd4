const NEAR = new Set(['127.0.0.1', '::1', 'localhost'])
const SHORTEST = 12

/** Why a server must not listen so: who reaches it may post in its accounts' names. Null where it may. */
export function troubleWith(options: {
  host: string
  password: string | undefined
  publicUrl: string | undefined
}): string | null {
  const { host, password, publicUrl } = options
  if (password !== undefined && password.length < SHORTEST)
    return `DRIPLINE_PASSWORD has ${password.length} signs. Take at least ${SHORTEST}.`
  if (publicUrl !== undefined && !/^https?:$/.test(protocolOf(publicUrl)))
    return 'PUBLIC_URL is no address of the web, such as https://social.example.org.'
  if (NEAR.has(host)) return null
  if (password === undefined)
    return 'Beyond this machine the server demands a password. Set DRIPLINE_PASSWORD, or leave HOST away (docs/running.md).'
  if (publicUrl === undefined)
    return 'Set PUBLIC_URL to the address at which browsers reach the server: it answers to that name alone (docs/running.md).'
  return null
}

function protocolOf(address: string): string {
  return URL.canParse(address) ? new URL(address).protocol : ''
}
