import { network } from '../../core/networks'
import type { Chat } from '../services/chat'
import type { Accounts } from '../store/accounts'
import type { Claim } from '../store/deliveries'
import type { Setback } from '../store/rounds'

const OPENING = 80

/**
 * Tells the team chat what went wrong for good with a delivery, where it hears of such. The app tells the same under
 * the same key when it learns of it, so that it is said once.
 */
export async function tellSetback(
  chat: Chat,
  accounts: Accounts,
  claim: Pick<Claim, 'account' | 'post' | 'generation' | 'payload'>,
  { what, reason }: Setback,
  now: number,
): Promise<void> {
  const { handle, network: id } = await accounts.one(claim.account)
  const place = `${network(id).name} (@${handle})`
  if (what === 'failed') {
    const [line = ''] = claim.payload.text.split('\n')
    const opening = line.length > OPENING ? `${line.slice(0, OPENING)} …` : line
    await chat.notice('failed posts', {
      key: `notice failed ${claim.post} ${claim.generation}`,
      text: `A post on ${place} was refused. ${reason} “${opening}”`,
    })
  } else if (what === 'by hand')
    await chat.notice('things that wait', {
      key: `notice hand ${claim.post} ${claim.generation}`,
      text: `A post for ${place} waits to be published by hand. It is laid out on the Desk.`,
    })
  else
    await chat.notice('broken accounts', {
      key: `notice account ${claim.account} ${new Date(now).toISOString()}`,
      text: `${place} lost its permission: ${reason} Its posts wait until it is linked again.`,
    })
}
