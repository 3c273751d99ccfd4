import { call } from '../api'
import { all } from '../store'

/** What was sent last; null before anything was. */
let sent: string | null = null

/** Lets the server know which notices it says in the team chat by itself, while the app is closed. */
export async function sendNotices(): Promise<void> {
  const [workspace] = await all('workspace')
  if (!workspace) return
  const { chat, kinds } = workspace.notices
  const heard = chat ? kinds : []
  const content = JSON.stringify(heard)
  if (sent === content) return
  await call('PUT', '/api/chat/notices', { kinds: heard })
  sent = content
}
