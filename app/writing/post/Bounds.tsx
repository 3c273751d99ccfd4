import { Flex } from '@chakra-ui/react'
import { type Post } from '../../../core/model'
import { boundPost } from '../../data'
import { attempt, DateField, Labelled, say, SelectField } from '../../ui'

/** The days between which it may go out, and whether before others. */
export function Bounds({ post }: { post: Post }) {
  const save = (change: Partial<Pick<Post, 'earliest' | 'latest' | 'priority'>>): Promise<boolean> =>
    attempt(async () => {
      const placed = await boundPost(post.id, {
        earliest: post.earliest,
        latest: post.latest,
        priority: post.priority,
        ...change,
      })
      if (placed.at !== post.at)
        say(placed.at ? 'It moved to keep to that.' : 'It has no place within these days.')
    })
  return (
    <Flex gap="2" mt="4" wrap="wrap" align="flex-end">
      {(['earliest', 'latest'] as const).map((end) => (
        <Labelled key={end} label={end === 'earliest' ? 'Not before' : 'Not after'}>
          {(id) => (
            <DateField
              id={id}
              mayBeEmpty
              value={post[end] ?? ''}
              onDate={(day) => void save({ [end]: day || null })}
            />
          )}
        </Labelled>
      ))}
      <SelectField
        aria-label="Priority"
        w="112px"
        value={Math.sign(post.priority)}
        onChange={(e) => void save({ priority: Number(e.target.value) })}
      >
        <option value={1}>before others</option>
        <option value={0}>like all</option>
        <option value={-1}>after others</option>
      </SelectField>
    </Flex>
  )
}
