import { Box, chakra } from '@chakra-ui/react'
import { useState } from 'react'
import { HouseStyle } from '../../core/model'
import { saveBrand } from '../data'
import { useWork } from '../shell'
import { attempt, Labelled, Page, PageHead, say } from '../ui'

/** What holds for the whole brand: standing hashtags, the never-say list, closing lines. */
export function HouseStyleScreen() {
  const { brand } = useWork()
  return (
    <Page>
      <PageHead
        title="House style"
        note={`What holds for every caption of ${brand.name}. It saves itself; captions written from now on follow it.`}
      />
      <Box px="6" pb="8" maxW="640px" display="flex" flexDirection="column" gap="5">
        <Lines
          label="Standing hashtags, one a line, without the number sign"
          hint="They come before the tags found in a piece."
          value={brand.houseStyle.hashtags}
          onKeep={(hashtags) =>
            save({ ...brand.houseStyle, hashtags: hashtags.map((h) => h.replace(/^#/, '')) })
          }
        />
        <Lines
          label="Never say, one word or phrase a line"
          hint="A caption that says one of these is blocked, in any case and with common endings."
          value={brand.houseStyle.neverSay}
          onKeep={(neverSay) => save({ ...brand.houseStyle, neverSay })}
        />
        <Lines
          label="Closing lines for long posts, one a line"
          hint="Questions that readers can answer. They go before the stock ones, in turn."
          value={brand.houseStyle.closingLines}
          onKeep={(closingLines) => save({ ...brand.houseStyle, closingLines })}
        />
      </Box>
    </Page>
  )

  function save(style: unknown): void {
    const parsed = HouseStyle.safeParse(style)
    if (!parsed.success) {
      say(`Not kept: ${parsed.error.issues[0]?.message ?? 'it has the wrong shape'}.`)
      return
    }
    void attempt(() => saveBrand({ ...brand, houseStyle: parsed.data }))
  }
}

function Lines({
  label,
  hint,
  value,
  onKeep,
}: {
  label: string
  hint: string
  value: readonly string[]
  onKeep: (lines: string[]) => void
}) {
  const [text, setText] = useState(value.join('\n'))
  return (
    <Labelled label={label} hint={hint}>
      {(id) => (
        <chakra.textarea
          id={id}
          rows={4}
          w="full"
          p="2"
          bg="raised"
          borderWidth="1px"
          borderColor="hairline"
          borderRadius="sm"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => {
            const lines = text
              .split('\n')
              .map((l) => l.trim())
              .filter(Boolean)
            if (lines.join('\n') !== value.join('\n')) onKeep(lines)
          }}
        />
      )}
    </Labelled>
  )
}
