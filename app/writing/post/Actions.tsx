import { Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { may, waitsForReview, type Post } from '../../../core/model'
import { bringBack, approve, setAside, takeDown, hold, lift, nextWording } from '../../data'
import { attempt, Button, say } from '../../ui'

export function Actions({
  post,
  editing,
  onEdit,
}: {
  post: Post
  editing: boolean
  onEdit: (editing: boolean) => void
}) {
  const [sure, setSure] = useState(false)
  if (editing) return null
  return (
    <Flex
      px="2"
      py="3"
      gap="1.5"
      borderTopWidth="1px"
      borderColor="hairline"
      justify="flex-end"
      flexWrap="wrap"
    >
      {may(post, 'take down') ? (
        sure ? (
          <Flex role="alertdialog" aria-label="Take it down" align="center" gap="2" fontSize="13px">
            It disappears from the network for good.
            <Button
              look="clay"
              onClick={() =>
                void attempt(async () => {
                  await takeDown(post.id)
                  say('It is being taken down.')
                  setSure(false)
                })
              }
            >
              Take it down
            </Button>
            <Button onClick={() => setSure(false)}>Leave it</Button>
          </Flex>
        ) : (
          <Button onClick={() => setSure(true)}>Take down …</Button>
        )
      ) : (
        <>
          <Button size="sm" px="2" hint="x" onClick={() => void asideOrBack(post)}>
            {may(post, 'bring back') ? 'Bring back' : 'Set aside'}
          </Button>
          {post.piece && may(post, 'reword') && (
            <Button size="sm" px="2" hint="w" onClick={() => void attempt(() => nextWording(post.id))}>
              Another
            </Button>
          )}
          {may(post, 'edit') && (
            <Button size="sm" px="2" hint="e" onClick={() => onEdit(true)}>
              Edit
            </Button>
          )}
          {waitsForReview(post) && (
            <Button size="sm" px="2" hint="a" look="water" onClick={() => void approveThis(post)}>
              Approve
            </Button>
          )}
        </>
      )}
    </Flex>
  )
}

/** Holds one post, or lifts its hold; nothing where it may not be held. */
export function HoldThis({ post }: { post: Post }) {
  if (!may(post, 'hold')) return null
  const what = { table: 'posts' as const, id: post.id, brand: post.brand, name: 'this post' }
  return (
    <Button size="sm" look="quiet" onClick={() => void attempt(() => (post.held ? lift(what) : hold(what)))}>
      {post.held ? 'Lift' : 'Hold'}
    </Button>
  )
}

/** Approves one post, and says what came of it. */
export async function approveThis(post: Post): Promise<void> {
  if (!waitsForReview(post)) return
  await attempt(async () => {
    const { moved, left } = await approve([post.id])
    const placed = moved ? ' Its time had passed, so it was placed anew.' : ''
    say(left[0] ? `It is not approved: ${left[0].why}` : `Approved.${placed}`)
  })
}

/** Sets a post aside, or brings one back that was. */
export async function asideOrBack(post: Post): Promise<void> {
  await attempt(async () => {
    if (may(post, 'bring back')) await bringBack(post.id)
    else await setAside([post.id])
  })
}
