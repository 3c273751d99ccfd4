import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

/** Whether a built file is missing, or older than anything in what it is made from (paths below the root). */
export function isOlder(root, built, sources) {
  if (!existsSync(built)) return true
  const made = statSync(built).mtimeMs
  const newest = (path) =>
    statSync(path).isDirectory()
      ? Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))))
      : statSync(path).mtimeMs
  return sources.some((name) => newest(join(root, name)) > made)
}
