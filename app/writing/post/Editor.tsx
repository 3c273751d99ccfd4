import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import type { Way } from '../../../core/drips'
import { type Post } from '../../../core/model'
import { measure, network } from '../../../core/networks'
import { checkWording, editText, remedied, rewordedSelection } from '../../data'
import { attempt, Button, Mono, say, useLater } from '../../ui'
import { Checks } from './Checks'

/** What can be asked of selected words. */
const SELECTION: readonly Way[] = ['shorter', 'plainer', 'warmer', 'as a question', 'another']

/**
 * Writes the caption by hand; what is typed is checked a moment after the last key. Leaving for
 * another post keeps it; words that were not kept before the browser closed are there again.
 */
export function Editor({ post, onDone }: { post: Post; onDone: () => void }) {
  const profile = network(post.network)
  const unsaved = `dripline-draft-${post.id}`
  const [draft, setDraft] = useState(() => localStorage.getItem(unsaved) ?? post.wording.text)
  const type = (text: string): void => {
    setDraft(text)
    localStorage.setItem(unsaved, text)
  }
  const typed = useLater(draft, 180)
  const checks = useSWR(['checks', post.id, typed], () => checkWording(post, typed), {
    revalidateOnFocus: false,
    keepPreviousData: true,
  }).data
  const [picked, setPicked] = useState<{ from: number; to: number }>({ from: 0, to: 0 })
  const length = measure(draft, profile.text)
  const selected = draft.slice(picked.from, picked.to)
  const resay = (way: Way): void =>
    void rewordedSelection(selected, way).then(([first]) => {
      if (first === undefined) {
        say(`Nothing can be said ${way} in the selected words by grammar alone.`)
        return
      }
      const kept = selected.length - selected.trimEnd().length
      const text = first + (kept ? selected.slice(-kept) : '')
      type(draft.slice(0, picked.from) + text + draft.slice(picked.to))
      setPicked({ from: picked.from, to: picked.from + text.length })
    })
  const keep = async (): Promise<boolean> => {
    if (draft !== post.wording.text && !(await attempt(() => editText(post.id, draft)))) return false
    localStorage.removeItem(unsaved)
    return true
  }
  const leave = (): void => {
    localStorage.removeItem(unsaved)
    onDone()
  }
  const save = async (): Promise<void> => {
    if (await keep()) onDone()
  }
  /** Leaving for something else on the page keeps the words; another window in front of it does not. */
  const lost = (event: React.FocusEvent): void => {
    if (event.currentTarget.contains(event.relatedTarget) || !document.hasFocus()) return
    void keep()
  }
  return (
    <Box onBlur={lost}>
      <chakra.textarea
        aria-label="Caption"
        autoFocus
        value={draft}
        onChange={(e) => type(e.target.value)}
        onSelect={(e) =>
          setPicked({ from: e.currentTarget.selectionStart, to: e.currentTarget.selectionEnd })
        }
        onKeyDown={(e) => {
          if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) void save()
          if (e.key === 'Escape') leave()
        }}
        w="full"
        minH="220px"
        p="3"
        fontFamily="reading"
        fontSize="15px"
        lineHeight="1.5"
        bg="paper"
        borderWidth="1px"
        borderColor="water"
        borderRadius="md"
      />
      {selected.trim().length > 3 && (
        <Flex
          gap="1"
          mt="1"
          wrap="wrap"
          align="center"
          fontSize="13px"
          role="group"
          aria-label="Selected words"
        >
          <Box color="soft">Selected:</Box>
          {SELECTION.map((way) => (
            <Button key={way} size="sm" look="quiet" onClick={() => resay(way)}>
              {way === 'another' ? 'turned round' : way}
            </Button>
          ))}
        </Flex>
      )}
      <Flex justify="space-between" align="center" mt="1">
        <Mono color={length > (profile.text.limit ?? Infinity) ? 'plumText' : 'soft'}>
          {length}
          {profile.text.limit === null ? '' : ` of ${profile.text.limit}`}
          {profile.text.fold ? `, fold at ${profile.text.fold}` : ''}
        </Mono>
        <Flex gap="2">
          <Button size="sm" onClick={leave}>
            Leave it
          </Button>
          <Button size="sm" look="water" hint="Ctrl ⏎" onClick={() => void save()}>
            Keep
          </Button>
        </Flex>
      </Flex>
      <Checks
        post={post}
        checks={checks ?? post.checks}
        acceptable={false}
        onMend={(check) =>
          void remedied(post, check, draft).then((text) => {
            if (text === null) say('Nothing could be mended by itself.')
            else type(text)
          })
        }
      />
    </Box>
  )
}
