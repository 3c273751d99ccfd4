import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import type { Account } from '../../core/model'
import { network, NETWORKS } from '../../core/networks'
import { linkPath, linkPlainly } from '../data'
import { useWork } from '../shell'
import { attempt, Button, Labelled, Mono, Notice, say, SelectField, TextField } from '../ui'

/** By what an account is linked that no page of a network allows. */
type Way = 'micropub' | 'webhook' | 'hand'

const WAYS: Record<Way, { name: string; about: string; address: string; example: string; form: string }> = {
  micropub: {
    name: 'Your own site',
    about:
      'A site that takes posts by Micropub, the open standard. Its own page asks whether Dripline may post.',
    address: 'Address of the site',
    example: 'https://example.org',
    form: 'broadside',
  },
  webhook: {
    name: 'Another system',
    about: 'Any system that takes an HTTP request: each post is sent there at its time, as signed JSON.',
    address: 'Address it is sent to',
    example: 'https://example.org/hook',
    form: 'courier',
  },
  hand: {
    name: 'By hand',
    about: 'Where nothing can be linked: at its time each post is laid out on the Desk, and you publish it.',
    address: 'Page that shows its posts, if any',
    example: 'https://example.org/you',
    form: 'hearthside',
  },
}

/** Linking what has no page of its own here: a site by Micropub, a system by a signed webhook, an account by hand. */
export function LinkOtherwise({ onLinked }: { onLinked: (account: Account) => void }) {
  const { brand } = useWork()
  const [way, setWay] = useState<Way | null>(null)
  const [name, setName] = useState('')
  const [address, setAddress] = useState('')
  const [form, setForm] = useState('')
  const [secret, setSecret] = useState<string | null>(null)
  const choose = (next: Way): void => {
    setWay(way === next ? null : next)
    setForm(WAYS[next].form)
    setSecret(null)
  }
  const link = (): void => {
    if (way === 'micropub') {
      window.location.assign(linkPath(form, brand.id, address.trim()))
      return
    }
    if (way)
      void attempt(async () => {
        const { account, secret: told } = await linkPlainly(brand.id, {
          connector: way,
          network: form,
          name: name.trim(),
          zone: brand.zone,
          address: address.trim(),
        })
        setSecret(told)
        setName('')
        setAddress('')
        say(`${account.handle} is linked.`)
        if (told === null) onLinked(account)
      })
  }
  const asked = way ? WAYS[way] : null
  const complete = way === 'micropub' ? address.trim() : name.trim() && (way === 'hand' || address.trim())
  return (
    <Box>
      <Flex gap="2" wrap="wrap">
        {(Object.keys(WAYS) as Way[]).map((w) => (
          <Button key={w} aria-expanded={way === w} onClick={() => choose(w)}>
            {WAYS[w].name}
          </Button>
        ))}
      </Flex>
      {way && asked && (
        <Box mt="3" maxW="640px">
          <Box color="soft" fontSize="13px" mb="3">
            {asked.about}
          </Box>
          <chakra.form
            display="flex"
            flexWrap="wrap"
            gap="3"
            alignItems="flex-end"
            onSubmit={(e) => {
              e.preventDefault()
              link()
            }}
          >
            {way !== 'micropub' && (
              <Labelled label="Name in lists">
                {(id) => (
                  <TextField id={id} w="180px" value={name} onChange={(e) => setName(e.target.value)} />
                )}
              </Labelled>
            )}
            <Labelled label={asked.address}>
              {(id) => (
                <TextField
                  id={id}
                  w="260px"
                  placeholder={asked.example}
                  value={address}
                  onChange={(e) => setAddress(e.target.value)}
                />
              )}
            </Labelled>
            <Labelled label="Its posts have the form of">
              {(id) => (
                <SelectField id={id} w="220px" value={form} onChange={(e) => setForm(e.target.value)}>
                  {NETWORKS.map((n) => (
                    <option key={n.id} value={n.id}>
                      {n.name}, {network(n.id).kind}
                    </option>
                  ))}
                </SelectField>
              )}
            </Labelled>
            <Button type="submit" look="water" disabled={!complete}>
              {way === 'micropub' ? 'Go to its page' : 'Link it'}
            </Button>
          </chakra.form>
          {secret !== null && (
            <Box mt="3">
              <Notice
                tone="moss"
                action={
                  <Button
                    onClick={() =>
                      void attempt(async () => {
                        await navigator.clipboard.writeText(secret)
                        say('Copied.')
                      })
                    }
                  >
                    Copy
                  </Button>
                }
              >
                Its secret, shown this once; the receiver checks signatures with it: <Mono>{secret}</Mono>
              </Notice>
            </Box>
          )}
        </Box>
      )}
    </Box>
  )
}
