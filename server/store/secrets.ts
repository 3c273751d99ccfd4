import { createCipheriv, createDecipheriv, createHash, randomBytes } from 'node:crypto'
import { chmodSync, existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Fault } from '../../core/model'

const FORM = 'v1'

/**
 * Seals what must not lie in the clear: tokens, keys of services. AES-256-GCM (NIST SP 800-38D) under a key of 32 bytes.
 * A sealed text is `v1.KEY.NONCE.TAG.WORDS` in base64url, where KEY names the key by eight letters of its hash.
 * The first key seals; all of them open.
 */
export class Secrets {
  readonly #keys: readonly Buffer[]

  constructor(keys: readonly [Buffer, ...Buffer[]]) {
    if (keys.some((key) => key.length !== 32))
      throw new Fault('not-ready', 'The key for secrets has to be 32 bytes, written in base64 (44 letters).')
    this.#keys = keys
  }

  get #key(): Buffer {
    return this.#keys[0] as Buffer
  }

  /** Whether a text is sealed under the key that seals now. */
  isPresent(text: string): boolean {
    return isSealed(text) && text.split('.')[1] === nameOf(this.#key)
  }

  seal(words: string): string {
    const nonce = randomBytes(12)
    const cipher = createCipheriv('aes-256-gcm', this.#key, nonce)
    const sealed = Buffer.concat([cipher.update(words, 'utf8'), cipher.final()])
    const parts = [nonce, cipher.getAuthTag(), sealed].map((b) => b.toString('base64url'))
    return [FORM, nameOf(this.#key), ...parts].join('.')
  }

  /** The words of a sealed text. Throws `not-ready` where another key sealed it, or it was changed. */
  open(sealed: string): string {
    const [form, key, nonce, tag, words] = sealed.split('.')
    if (form !== FORM || !nonce || !tag || words === undefined)
      throw new Fault('not-ready', 'A secret in the database is not in a form that this server knows.')
    const known = this.#keys.find((k) => nameOf(k) === key)
    if (!known)
      throw new Fault(
        'not-ready',
        'The secrets in the database were sealed under another key. Give the server the key it had before: the file “key” in its data folder, or DRIPLINE_KEY.',
      )
    try {
      const decipher = createDecipheriv('aes-256-gcm', known, Buffer.from(nonce, 'base64url'))
      decipher.setAuthTag(Buffer.from(tag, 'base64url'))
      return decipher.update(Buffer.from(words, 'base64url'), undefined, 'utf8') + decipher.final('utf8')
    } catch {
      throw new Fault('not-ready', 'A secret in the database was changed from outside and cannot be opened.')
    }
  }
}

/** Whether a text is sealed. */
export function isSealed(text: string): boolean {
  return text.startsWith(`${FORM}.`) && text.split('.').length === 5
}

function nameOf(key: Buffer): string {
  return createHash('sha256').update(key).digest('base64url').slice(0, 8)
}

/**
 * The keys of a data folder: from the environment (base64) where one is given, else the folder's file, made at first,
 * and beside it the one that a change of keys was broken off with.
 */
export function keysOf(folder: string, fromEnvironment: string | undefined): [Buffer, ...Buffer[]] {
  if (fromEnvironment) return [Buffer.from(fromEnvironment, 'base64')]
  const [present, next] = [join(folder, 'key'), join(folder, 'key.next')]
  if (!existsSync(present)) writeKey(present, randomBytes(32))
  return [readKey(present), ...(existsSync(next) ? [readKey(next)] : [])]
}

/** Begins a change of keys: writes a new one beside the present one, and gives it. */
export function nextKey(folder: string): Buffer {
  const path = join(folder, 'key.next')
  if (!existsSync(path)) writeKey(path, randomBytes(32))
  return readKey(path)
}

/** Ends it: the new key takes the place of the old one. */
export function adoptNextKey(folder: string): void {
  renameSync(join(folder, 'key.next'), join(folder, 'key'))
}

function readKey(path: string): Buffer {
  chmodSync(path, 0o600)
  return Buffer.from(readFileSync(path, 'utf8').trim(), 'base64')
}

function writeKey(path: string, key: Buffer): void {
  writeFileSync(`${path}.new`, `${key.toString('base64')}\n`, { mode: 0o600 })
  renameSync(`${path}.new`, path)
}
