import { during, visitSource } from '../data'
import { count, say } from '../ui'

/** Visits a source and says how it went. */
export async function visitNow(id: string, title: string): Promise<void> {
  const taken = await during(`Reading ${title}`, (show) => visitSource(id, show))
  say(taken ? `${count(taken, 'piece')} taken in from ${title}.` : `Nothing new from ${title}.`)
}
