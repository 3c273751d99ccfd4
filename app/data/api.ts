import { Fault, FaultBody } from '../../core/model'

let workspace = ''
let known: () => void = () => undefined
/** Settled once the workspace is known; requests that carry its name wait for that. */
const workspaceKnown = new Promise<void>((resolve) => {
  known = resolve
})
/** What is asked before there is a workspace. */
const BEFORE = /^\/api\/(clock|demo|health)/

/** Says which workspace speaks; the server's spool belongs to one. */
export function setWorkspace(id: string): void {
  workspace = id
  known()
}

/** How long an answer may take, in milliseconds: longer than any page or upload, so that no work waits for ever. */
const PATIENCE = 90_000

/** Calls the server and gives the parsed answer; its faults are thrown as they were made. */
export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const response = await send(method, path, body)
  return (await response.json()) as T
}

export function get<T>(path: string): Promise<T> {
  return call<T>('GET', path)
}

export function post<T>(path: string, body: unknown): Promise<T> {
  return call<T>('POST', path, body)
}

/** Calls the server and gives the answer's bytes. */
export async function bytes(method: string, path: string, body?: unknown): Promise<Blob> {
  return (await send(method, path, body)).blob()
}

/** Uploads a picture under its hash. */
export async function upload(path: string, blob: Blob): Promise<void> {
  await send('PUT', path, blob)
}

async function send(method: string, path: string, body: unknown): Promise<Response> {
  if (!BEFORE.test(path)) await workspaceKnown
  const binary = body instanceof Blob
  let response: Response
  try {
    response = await fetch(path, {
      method,
      signal: AbortSignal.timeout(PATIENCE),
      headers: {
        'x-dripline-workspace': workspace,
        ...(body === undefined ? {} : { 'content-type': binary ? body.type : 'application/json' }),
      },
      ...(body === undefined ? {} : { body: binary ? body : JSON.stringify(body) }),
    })
  } catch {
    throw new Fault(
      'unreachable',
      'The server does not answer. Is it running? Nothing is lost; what you did is kept in this browser.',
    )
  }
  if (response.ok) return response
  const parsed = FaultBody.safeParse(await response.json().catch(() => null))
  if (parsed.success) throw new Fault(parsed.data.code, parsed.data.message, parsed.data.where)
  throw new Fault('bad-answer', `The server answered ${response.status} without a reason. Its log says more.`)
}
