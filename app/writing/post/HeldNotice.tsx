import { Flex } from '@chakra-ui/react'
import { type Post } from '../../../core/model'
import { decideLate } from '../../data'
import { attempt, Button, Notice } from '../../ui'

/** Why a post is kept back, with what a person may decide. */
export function HeldNotice({ post }: { post: Post }) {
  return (
    <Notice
      tone="clay"
      action={
        <Flex gap="1" direction="column">
          <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'send now'))}>
            Send now
          </Button>
          <Button size="sm" onClick={() => void attempt(() => decideLate(post.id, 'place anew'))}>
            Place anew
          </Button>
        </Flex>
      }
    >
      {post.held?.reason}
    </Notice>
  )
}
