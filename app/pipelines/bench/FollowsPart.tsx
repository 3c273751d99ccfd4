import { Box, chakra, Flex } from '@chakra-ui/react'
import { nanoid } from 'nanoid'
import { Link } from 'react-router'
import {
  FEED_FORMATS,
  TOLD,
  type FeedFormat,
  type Follow,
  type Pipeline,
  type Told,
} from '../../../core/model'
import { FILLED_IN, FILLINGS, MESSAGES, unfilled } from '../../../core/pipeline'
import { inWords } from '../../../core/text'
import { archiveOf, download, useChat, useDocumentAddress, type PipelineChange } from '../../data'
import { attempt, Button, fileName, Mono, say, TextArea, useTyped } from '../../ui'
import { Bound, Choice, Typed } from '../rules/fields'
import { Part, Sentence } from './parts'

const WHEN: Readonly<Record<Told, string>> = {
  'is taken in': 'a piece is taken in',
  'is published': 'a post is published',
  fails: 'a post fails',
  'is finished': 'the last post of a piece is out',
}

/** What follows what a pipeline does: messages, an archive sheet, a feed, another pipeline. */
export function FollowsPart({
  pipeline,
  others,
  onSave,
}: {
  pipeline: Pipeline
  /** The brand's other pipelines. */
  others: readonly Pipeline[]
  onSave: (change: PipelineChange, label: string) => void
}) {
  const { follows } = pipeline
  const change = (follow: Follow): void =>
    onSave(
      { follows: follows.map((f) => (f.id === follow.id ? follow : f)) },
      'Change what follows a pipeline',
    )
  const add = (follow: Follow): void =>
    onSave({ follows: [...follows, follow] }, 'Add to what follows a pipeline')
  const takeOut = (id: string): void =>
    onSave({ follows: follows.filter((f) => f.id !== id) }, 'Take out of what follows a pipeline')
  const [first] = others
  return (
    <Part title="What follows">
      {follows.length === 0 && (
        <Box color="soft">Nothing: posts go out, and that is all. Something can follow by itself:</Box>
      )}
      {follows.map((follow) => (
        <Flex
          key={follow.id}
          gap="2"
          align="flex-start"
          py="1"
          borderBottomWidth="1px"
          borderStyle="dotted"
          borderColor="hairline"
        >
          <Box flex="1" minW="0">
            {follow.kind === 'chat' && <Message follow={follow} onChange={change} />}
            {follow.kind === 'sheet' && <Sheet pipeline={pipeline} follow={follow} onChange={change} />}
            {follow.kind === 'feed' && <FeedOf pipeline={pipeline} follow={follow} onChange={change} />}
            {follow.kind === 'pipeline' && <Next follow={follow} others={others} onChange={change} />}
          </Box>
          <Button size="sm" look="quiet" aria-label="Take it out" onClick={() => takeOut(follow.id)}>
            Take out
          </Button>
        </Flex>
      ))}
      <Flex gap="1.5" wrap="wrap" mt="1.5">
        <Button
          size="sm"
          onClick={() =>
            add({ kind: 'chat', id: nanoid(), when: 'is published', text: MESSAGES['is published'] })
          }
        >
          Tell the team chat
        </Button>
        <Button size="sm" onClick={() => add({ kind: 'sheet', id: nanoid(), title: pipeline.name })}>
          Keep an archive sheet
        </Button>
        <Button
          size="sm"
          onClick={() => add({ kind: 'feed', id: nanoid(), title: pipeline.name, format: 'RSS', items: 20 })}
        >
          Publish a feed
        </Button>
        <Button
          size="sm"
          disabled={!first}
          title={first ? undefined : 'This brand has no other pipeline'}
          onClick={() =>
            first && add({ kind: 'pipeline', id: nanoid(), pipeline: first.id, takes: 'the finished piece' })
          }
        >
          Hand on to a pipeline
        </Button>
      </Flex>
    </Part>
  )
}

type Of<K extends Follow['kind']> = Extract<Follow, { kind: K }>
interface Props<K extends Follow['kind']> {
  follow: Of<K>
  onChange: (follow: Follow) => void
}

function Message({ follow, onChange }: Props<'chat'>) {
  const chat = useChat()
  const [text, setText] = useTyped(follow.text)
  const wrong = unfilled(text, follow.when)
  return (
    <>
      <Sentence>
        Tell the team chat when
        <Choice
          label="When the team chat is told"
          value={follow.when}
          options={TOLD.map((t) => [t, WHEN[t]])}
          onChange={(v) => {
            const when = v as Told
            // Words that nobody changed go with the occasion.
            const own = follow.text !== MESSAGES[follow.when]
            onChange({ ...follow, when, text: own ? follow.text : MESSAGES[when] })
          }}
        />
      </Sentence>
      <TextArea
        aria-label="The message"
        w="full"
        rows={2}
        maxLength={1000}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text.trim() && text !== follow.text && onChange({ ...follow, text: text.trim() })}
      />
      <Box fontSize="13px" color="soft" lineHeight="1.5">
        Filled in:{' '}
        {FILLED_IN[follow.when].map((name, i) => (
          <chakra.span key={name} title={FILLINGS[name]}>
            {i > 0 && ', '}
            <Mono>{`{${name}}`}</Mono>
          </chakra.span>
        ))}
      </Box>
      {wrong.length > 0 && (
        <Box fontSize="13px" color="amberText">
          Nothing is filled in for {inWords(wrong.map((w) => `{${w}}`))}; it would be said as it stands.
        </Box>
      )}
      {chat && chat.host === null && (
        <Box fontSize="13px" color="amberText">
          No team chat is connected, so nothing is said.{' '}
          <Link to="/settings/services" style={{ textDecoration: 'underline' }}>
            Connect one
          </Link>
        </Box>
      )}
    </>
  )
}

function Sheet({ pipeline, follow, onChange }: Props<'sheet'> & { pipeline: Pipeline }) {
  return (
    <>
      <Sentence>
        Each published post is a row of the archive sheet
        <Typed
          label="Name of the archive sheet"
          wide
          value={follow.title}
          onChange={(title) => title && onChange({ ...follow, title: title.slice(0, 80) })}
        />
      </Sentence>
      <Served pipeline={pipeline} follow={follow}>
        <Button
          size="sm"
          onClick={() =>
            void attempt(async () =>
              download(
                new Blob([await archiveOf(pipeline)], { type: 'text/csv' }),
                `${fileName(follow.title)}.csv`,
              ),
            )
          }
        >
          Save as CSV
        </Button>
      </Served>
    </>
  )
}

function FeedOf({ pipeline, follow, onChange }: Props<'feed'> & { pipeline: Pipeline }) {
  return (
    <>
      <Sentence>
        The last
        <Bound
          label="Items of the feed"
          value={follow.items}
          onChange={(n) =>
            n !== null && onChange({ ...follow, items: Math.min(200, Math.max(1, Math.round(n))) })
          }
        />
        published posts are the
        <Choice
          label="Format of the feed"
          value={follow.format}
          options={FEED_FORMATS.map((f) => [f, f === 'JSON Feed' ? 'JSON' : f])}
          onChange={(v) => onChange({ ...follow, format: v as FeedFormat })}
        />
        feed
        <Typed
          label="Name of the feed"
          wide
          value={follow.title}
          onChange={(title) => title && onChange({ ...follow, title: title.slice(0, 80) })}
        />
      </Sentence>
      <Served pipeline={pipeline} follow={follow} />
    </>
  )
}

/** Where it is served, to copy. */
function Served({
  pipeline,
  follow,
  children,
}: {
  pipeline: Pipeline
  follow: Of<'feed' | 'sheet'>
  children?: React.ReactNode
}) {
  const url = useDocumentAddress(pipeline, follow)
  return (
    <Flex gap="1.5" align="center" wrap="wrap">
      {url ? (
        <>
          <Mono minW="0" maxW="260px" truncate title={url}>
            {url}
          </Mono>
          <Button
            size="sm"
            onClick={() =>
              void attempt(async () => {
                await navigator.clipboard.writeText(url)
                say('The address is copied.')
              })
            }
          >
            Copy its address
          </Button>
        </>
      ) : (
        <Box fontSize="13px" color="soft">
          {pipeline.on ? 'It has its address once it is put to work.' : 'It has its address in a moment.'}
        </Box>
      )}
      {children}
    </Flex>
  )
}

function Next({ follow, others, onChange }: Props<'pipeline'> & { others: readonly Pipeline[] }) {
  const gone = !others.some((p) => p.id === follow.pipeline)
  return (
    <>
      <Sentence>
        <Choice
          label="The pipeline that takes over"
          value={follow.pipeline}
          options={[
            ...(gone ? [[follow.pipeline, 'a pipeline that was removed'] as const] : []),
            ...others.map((p) => [p.id, p.name] as const),
          ]}
          onChange={(pipeline) => onChange({ ...follow, pipeline })}
        />
        takes over
        <Choice
          label="What it takes over"
          value={follow.takes}
          options={[
            ['the finished piece', 'each piece once all of its posts are out'],
            ['the published posts', 'each published post as a piece of its own'],
          ]}
          onChange={(v) => onChange({ ...follow, takes: v as typeof follow.takes })}
        />
      </Sentence>
      {gone && (
        <Box fontSize="13px" color="amberText">
          Nothing is handed on. Choose another pipeline, or take this out.
        </Box>
      )}
    </>
  )
}
