import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import type { Post } from '../../core/model'
import { anotherAngle, approve, replaceIn, setAside } from '../data'
import { attempt, Button, count, say, TextField } from '../ui'
import { approvedWords } from './approved'

/** What can be done with several posts at once; it says which were left, and why. */
export function Many({ posts, onDone }: { posts: readonly Post[]; onDone: () => void }) {
  const [replacing, setReplacing] = useState(false)
  const [find, setFind] = useState('')
  const [replace, setReplace] = useState('')
  const [busy, setBusy] = useState(false)
  const ids = posts.map((p) => p.id)
  const run = (work: () => Promise<string>): void =>
    void (async () => {
      setBusy(true)
      if (await attempt(async () => say(await work()))) onDone()
      setBusy(false)
    })()
  const approveAll = async (): Promise<string> => approvedWords(await approve(ids))
  const setAsideAll = async (): Promise<string> => {
    const aside = await setAside(ids)
    return `${count(aside, 'post was', 'posts were')} set aside.`
  }
  const angleAll = async (): Promise<string> => {
    const { changed, left } = await anotherAngle(ids)
    return `${count(changed, 'caption has', 'captions have')} another angle.${left ? ` ${left} left: their passages carry no other.` : ''}`
  }
  const replaceAll = async (): Promise<string> => {
    const { changed, left } = await replaceIn(ids, find, replace)
    return `Replaced in ${count(changed, 'caption')}.${left ? ` ${left} left, they are out.` : ''}`
  }
  return (
    <Flex
      role="toolbar"
      aria-label="Several posts"
      px="6"
      py="2"
      mb="2"
      gap="2"
      align="center"
      wrap="wrap"
      bg="raised"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
      fontSize="13px"
    >
      <Box fontWeight="600">{count(posts.length, 'post')} selected</Box>
      <Button size="sm" look="water" disabled={busy} onClick={() => run(approveAll)}>
        Approve
      </Button>
      <Button size="sm" disabled={busy} onClick={() => run(angleAll)}>
        Another angle
      </Button>
      <Button size="sm" disabled={busy} onClick={() => run(setAsideAll)}>
        Set aside
      </Button>
      {replacing ? (
        <>
          <TextField
            aria-label="Find"
            placeholder="find"
            autoFocus
            w="140px"
            h="7"
            value={find}
            onChange={(e) => setFind(e.target.value)}
          />
          <TextField
            aria-label="Replace with"
            placeholder="replace with"
            w="140px"
            h="7"
            value={replace}
            onChange={(e) => setReplace(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && find && run(replaceAll)}
          />
          <Button size="sm" disabled={busy || !find} onClick={() => run(replaceAll)}>
            Replace in {posts.filter((p) => find && p.wording.text.includes(find)).length}
          </Button>
        </>
      ) : (
        <Button size="sm" disabled={busy} onClick={() => setReplacing(true)}>
          Find and replace …
        </Button>
      )}
      <Box flex="1" />
      <Button size="sm" look="quiet" hint="Esc" onClick={onDone}>
        Select none
      </Button>
    </Flex>
  )
}
