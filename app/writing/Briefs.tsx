import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { network, NETWORKS } from '../../core/networks'
import { saveBrand, useAccounts } from '../data'
import { useWork } from '../shell'
import { attempt, Button, Page, PageHead, SelectField } from '../ui'
import { BriefFields } from './BriefFields'
import { Example, PieceChoice, usePieces } from './Example'

/** The brief of each network, and two of them side by side on the same piece. */
export function Briefs() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const accounts = useAccounts(brand.id) ?? []
  const pieces = usePieces(brand.id)
  const [chosen, setChosen] = useState<string | null>(null)
  const piece = pieces.find((p) => p.id === chosen) ?? pieces[0]
  const used = [...new Set(accounts.map((a) => a.network))]
  const left = params.get('network') ?? used[0] ?? 'murmur'
  const right = params.get('beside')
  const show = (change: Record<string, string | null>): void => {
    const next = new URLSearchParams(params)
    for (const [key, value] of Object.entries(change)) {
      if (value) next.set(key, value)
      else next.delete(key)
    }
    setParams(next, { replace: true })
  }
  return (
    <Page>
      <PageHead
        title="Briefs"
        note="How captions are written for each network. What is not said here is as the network proposes and the house style says."
      >
        <Button onClick={() => void navigate('/writing/house')}>House style</Button>
        {right ? (
          <Button onClick={() => show({ beside: null })}>One brief</Button>
        ) : (
          <Button onClick={() => show({ beside: used.find((n) => n !== left) ?? 'guildhall' })}>
            Two side by side
          </Button>
        )}
      </PageHead>
      <Box px="6" pb="8">
        {piece && (
          <Flex gap="3" align="center" mb="4" maxW="620px">
            <Box fontSize="13px" color="soft" whiteSpace="nowrap">
              Live example on
            </Box>
            <PieceChoice pieces={pieces} value={piece.id} onChange={setChosen} />
          </Flex>
        )}
        <Flex gap="8" align="flex-start">
          {[left, ...(right ? [right] : [])].map((id, i) => (
            <Box key={i} flex="1" minW="0">
              <Flex gap="8" align="flex-start" direction={right ? 'column' : 'row'}>
                <Box w={right ? 'full' : '460px'} flexShrink={0}>
                  <SelectField
                    aria-label={i ? 'The other network' : 'Network'}
                    fontWeight="600"
                    mb="4"
                    value={id}
                    onChange={(e) => show({ [i ? 'beside' : 'network']: e.target.value })}
                  >
                    {NETWORKS.map((n) => (
                      <option key={n.id} value={n.id}>
                        {n.name}
                        {used.includes(n.id) ? '' : ' (no account yet)'}
                      </option>
                    ))}
                  </SelectField>
                  <BriefFields
                    brand={brand}
                    id={id}
                    own={brand.briefs.find((b) => b.network === id)}
                    given={`As ${network(id).name} proposes`}
                    onSave={(brief) => {
                      const others = brand.briefs.filter((b) => b.network !== id)
                      void attempt(() =>
                        saveBrand(brand, { ...brand, briefs: brief ? [...others, brief] : others }),
                      )
                    }}
                  />
                </Box>
                {piece && (
                  <Box flex="1" minW="0" w="full">
                    <Example brand={brand} piece={piece.id} networks={[id]} />
                  </Box>
                )}
              </Flex>
            </Box>
          ))}
        </Flex>
      </Box>
    </Page>
  )
}
