import { Flex } from '@chakra-ui/react'
import { may, type Post } from '../../../core/model'
import { decideLate, tryAgain } from '../../data'
import { attempt, Button, Notice } from '../../ui'

/** Why a post failed or is kept back, with what a person may decide. */
export function Troubles({ post }: { post: Post }) {
  return (
    <>
      {post.failure && (
        <Notice
          tone="plum"
          action={
            may(post, 'try again') && (
              <Button onClick={() => void attempt(() => tryAgain(post.id))}>Try again</Button>
            )
          }
        >
          {post.failure}
        </Notice>
      )}
      {post.held && (
        <Notice
          tone="clay"
          action={
            may(post, 'send now') && (
              <Flex gap="1" direction="column">
                <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'send now'))}>
                  Send now
                </Button>
                <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'place anew'))}>
                  Place anew
                </Button>
              </Flex>
            )
          }
        >
          {post.held.reason}
        </Notice>
      )}
    </>
  )
}
