import { Box, chakra, Flex } from '@chakra-ui/react'
import { useRef } from 'react'
import { Link, useLocation } from 'react-router'
import useSWR from 'swr'
import type { Brand } from '../../core/model'
import type { Asked } from '../../core/results'
import { download, useAccounts, useRows } from '../data'
import { makeReport, type ReportWords } from '../data/more'
import { useWork } from '../shell'
import {
  Button,
  Choice,
  fileName,
  Labelled,
  Notice,
  Page,
  PageHead,
  TextArea,
  TextField,
  useKept,
  useLater,
} from '../ui'
import { ReportChoices } from './Choices'
import { SPANS, useAsked } from './useAsked'

/** How many of the best posts a report shows. */
const BEST = ['0', '3', '6', '9'] as const

/** What published posts did, as a page for a client: seen as it is written, saved or printed. */
export function ReportScreen() {
  const { brand } = useWork()
  const question = useAsked()
  const { search } = useLocation()
  const [words, setWords] = useKept<ReportWords>(`report ${brand.id}`, {
    title: `${brand.name}: what our posts did`,
    by: '',
    note: '',
    best: 6,
  })
  const later = useLater(words, 400)
  const { html, fault } = useReport(brand, question.asked, later)
  const accounts = useAccounts(brand.id) ?? []
  const pipelines = useRows('pipelines', 'brand', brand.id) ?? []
  const page = useRef<HTMLIFrameElement>(null)
  const save = (): void =>
    download(new Blob([html ?? ''], { type: 'text/html' }), `${fileName(words.title)}.html`)
  return (
    <Page
      side={
        <Words words={words} onChange={setWords}>
          <Button look="water" disabled={!html} onClick={save}>
            Save the page
          </Button>
          <Button disabled={!html} onClick={() => page.current?.contentWindow?.print()}>
            Print, or save as PDF
          </Button>
        </Words>
      }
    >
      <Flex direction="column" h="full">
        <PageHead
          title="Report"
          note={`The last ${SPANS[question.span]} on one page that needs nothing else, for somebody who has no Dripline.`}
        >
          <ReportChoices question={question} names={{ accounts, pipelines }} />
          <Link to={{ pathname: '/results', search }}>
            <Button as="span">Results</Button>
          </Link>
        </PageHead>
        {fault && (
          <Box px="6">
            <Notice tone="amber">{fault}</Notice>
          </Box>
        )}
        <Box flex="1" minH="0" px="6" pb="6">
          <chakra.iframe
            ref={page}
            title="The report"
            srcDoc={html ?? ''}
            sandbox="allow-same-origin allow-modals"
            w="full"
            h="full"
            bg="white"
            borderWidth="1px"
            borderColor="hairline"
            borderRadius="md"
          />
        </Box>
      </Flex>
    </Page>
  )
}

/** The report as it would be saved; undefined while it is written. It is written anew when posts or readings change. */
function useReport(
  brand: Brand,
  asked: Asked,
  words: ReportWords,
): { html: string | undefined; fault: string | null } {
  const posts = useRows('posts', 'brand', brand.id)
  const readings = useRows('readings', 'brand', brand.id)
  const { data, error } = useSWR<string, Error>(
    posts && readings
      ? ['report', brand.id, posts.length, readings.length, JSON.stringify([asked, words])]
      : null,
    () => makeReport(brand, asked, words),
    { revalidateOnFocus: false, keepPreviousData: true, shouldRetryOnError: false },
  )
  return { html: data, fault: error?.message ?? null }
}

/** What a person says of the report, and what is done with it. */
function Words({
  words,
  onChange,
  children,
}: {
  words: ReportWords
  onChange: (words: ReportWords) => void
  children: React.ReactNode
}) {
  const change = (by: Partial<ReportWords>): void => onChange({ ...words, ...by })
  return (
    <Flex direction="column" gap="4" p="5">
      <Labelled label="Title">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={words.title}
            onChange={(e) => change({ title: e.target.value })}
          />
        )}
      </Labelled>
      <Labelled label="Who made it">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={words.by}
            placeholder="Nobody is named"
            onChange={(e) => change({ by: e.target.value })}
          />
        )}
      </Labelled>
      <Labelled label="A note above the figures">
        {(id) => (
          <TextArea
            id={id}
            rows={9}
            value={words.note}
            placeholder="What was tried, what comes next"
            onChange={(e) => change({ note: e.target.value })}
          />
        )}
      </Labelled>
      <Choice
        label="How many of the best posts"
        value={String(words.best)}
        options={BEST.map((n) => [n, n === '0' ? 'no posts' : `the best ${n} posts`])}
        onChange={(n) => change({ best: Number(n) })}
      />
      <Flex direction="column" gap="2" align="stretch">
        {children}
      </Flex>
    </Flex>
  )
}
