import { Box, chakra, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { makeBrand } from '../data'
import { attempt, Button, Labelled, TextField } from '../ui'

/** The first screen of an empty workspace: make a brand. */
export function Welcome({ onMade }: { onMade: (id: string) => void }) {
  const [name, setName] = useState('')
  return (
    <Box maxW="440px" mx="auto" pt="24" px="6" as="main">
      <Heading as="h1" fontSize="24px" fontWeight="700">
        Long-form work in; short posts out
      </Heading>
      <Box color="soft" mt="2" mb="6" lineHeight="1.55">
        Dripline takes in what a brand writes, finds the passages worth quoting, writes a caption for each
        network, and publishes them over months. Begin with a brand: one client or publication.
      </Box>
      <chakra.form
        display="flex"
        flexDirection="column"
        gap="3"
        onSubmit={(event: React.FormEvent) => {
          event.preventDefault()
          if (name.trim())
            void attempt(async () =>
              onMade(await makeBrand(name, Intl.DateTimeFormat().resolvedOptions().timeZone)),
            )
        }}
      >
        <Labelled label="The brand’s name">
          {(id) => (
            <TextField id={id} w="full" value={name} onChange={(e) => setName(e.target.value)} autoFocus />
          )}
        </Labelled>
        <Button type="submit" look="water" disabled={!name.trim()}>
          Make the brand
        </Button>
      </chakra.form>
    </Box>
  )
}
