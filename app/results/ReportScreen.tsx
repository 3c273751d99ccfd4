import { Box, chakra, Flex } from '@chakra-ui/react'
import { useRef } from 'react'
import { Link, useLocation } from 'react-router'
import { writeReport } from '../../core/formats'
import { download, useAccounts, useRows } from '../data'
import { useReport } from '../data/more'
import { useWork } from '../shell'
import {
  Button,
  Choice,
  fileName,
  Labelled,
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

/** What a person says of a report: its title, who made it, words above the figures, and how many of the best posts it shows. */
interface ReportWords {
  title: string
  by: string
  note: string
  best: number
}

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
  const reported = useReport(brand.id, question.asked, words.best)
  const html =
    reported &&
    writeReport({
      title: words.title.trim() || brand.name,
      by: words.by.trim(),
      note: words.note,
      zone: brand.zone,
      ...reported,
    })
  const seen = useLater(html, 400)
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
          <Button disabled={!html || seen !== html} onClick={() => page.current?.contentWindow?.print()}>
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
        <Box flex="1" minH="0" px="6" pb="6">
          <chakra.iframe
            ref={page}
            title="The report"
            srcDoc={seen ?? ''}
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
