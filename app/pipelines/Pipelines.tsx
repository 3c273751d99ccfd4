import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link, useNavigate } from 'react-router'
import { isToCome } from '../../core/model'
import { releasedTo, timingWords } from '../../core/pipeline'
import { useAccounts, useRows } from '../data'
import { useWork } from '../shell'
import { Button, count, Drop, Empty, Mono, Page, PageHead } from '../ui'
import { PipelineSwitch } from './Switch'

/** The brand's pipelines: each from sources to accounts by itself. */
export function Pipelines() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  const posts = useRows('posts', 'brand', brand.id)
  const drips = useRows('drips', 'brand', brand.id)
  if (!pipelines || !sources || !accounts || !posts || !drips) return <Page>{null}</Page>
  const make = (): void => void navigate('/pipelines/new')
  return (
    <Page>
      <PageHead
        title="Pipelines"
        note={`${count(pipelines.filter((p) => p.on).length, 'pipeline')} switched on.`}
      >
        <Button look="water" onClick={make}>
          Make a pipeline
        </Button>
      </PageHead>
      <Box px="6" pb="8">
        {pipelines.length === 0 && (
          <Empty
            title="A pipeline does the week’s work by itself"
            action={
              <Button look="water" onClick={make}>
                Make a pipeline
              </Button>
            }
          >
            It takes in what a source brings, writes the drip, places it in the accounts’ slots, and publishes
            it, or holds it for you first. You say which sources, which accounts, how densely, and how much
            you want to see.
          </Empty>
        )}
        {pipelines.map((pipeline) => {
          const ahead = posts.filter((p) => p.pipeline === pipeline.id && isToCome(p)).length
          return (
            <Flex
              key={pipeline.id}
              align="center"
              gap="4"
              minH="68px"
              py="2"
              borderTopWidth="1px"
              borderColor="hairline"
            >
              <Drop
                state={pipeline.on ? 'published' : 'draft'}
                hue={pipeline.hue}
                size={26}
                title={pipeline.on ? 'switched on' : 'switched off'}
              />
              <Box flex="1" minW="0">
                <Link to={`/pipelines/${pipeline.id}`}>
                  <chakra.span fontSize="16px" fontWeight="600" _hover={{ textDecoration: 'underline' }}>
                    {pipeline.name}
                  </chakra.span>
                </Link>
                <Box color="soft" fontSize="13px" truncate>
                  {[
                    ...pipeline.takeIn.sources.map(
                      (id) => sources.find((s) => s.id === id)?.title ?? 'a removed source',
                    ),
                    ...pipeline.takeIn.groups.map((g) => `the group ${g}`),
                  ].join(', ') || 'no source'}{' '}
                  →{' '}
                  {releasedTo(pipeline, accounts)
                    .map((a) => `@${a.handle}`)
                    .join(', ') || 'no account'}{' '}
                  · {[...new Set(pipeline.release.map((r) => timingWords(r.by)))].join(', ')} · holds{' '}
                  {pipeline.gate}
                  {pipeline.endedAt ? ' · ended' : pipeline.held ? ' · held' : ''}
                </Box>
              </Box>
              <Mono>
                {count(drips.filter((d) => d.pipeline === pipeline.id).length, 'piece')} ·{' '}
                {count(ahead, 'post')} ahead
              </Mono>
              {!pipeline.endedAt && <PipelineSwitch pipeline={pipeline} />}
            </Flex>
          )
        })}
      </Box>
    </Page>
  )
}
