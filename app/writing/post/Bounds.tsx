import { Flex } from '@chakra-ui/react'
import { type Post } from '../../../core/model'
import { boundPost } from '../../data'
import { attempt, Labelled, say, SelectField, TextField, useTyped } from '../../ui'

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
          {(id) => <DayField id={id} day={post[end]} onChange={(day) => save({ [end]: day })} />}
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

/** A day that is taken once the field is left; one that could not be taken becomes what it was. */
function DayField(props: {
  id: string
  day: string | null
  onChange: (day: string | null) => Promise<boolean>
}) {
  const shown = props.day ?? ''
  const [typed, type] = useTyped(shown)
  const leave = async (): Promise<void> => {
    if (typed !== shown && !(await props.onChange(typed || null))) type(shown)
  }
  return (
    <TextField
      id={props.id}
      type="date"
      w="126px"
      value={typed}
      onChange={(e) => type(e.target.value)}
      onBlur={() => void leave()}
    />
  )
}
