import { Box } from '@chakra-ui/react'
import { useState } from 'react'
import { applyTheme, storedTheme, type Theme } from '../shell'
import { Labelled, Page, PageHead, SelectField } from '../ui'
import { Tabs } from './Tabs'

/** How the workshop looks in this browser. */
export function Look() {
  const [theme, setTheme] = useState<Theme>(storedTheme)
  return (
    <Page>
      <Tabs />
      <PageHead title="Look" note="Of this browser alone." />
      <Box px="6" maxW="320px">
        <Labelled label="Theme">
          {(id) => (
            <SelectField
              id={id}
              w="full"
              value={theme}
              onChange={(e) => {
                const next = e.target.value as Theme
                setTheme(next)
                applyTheme(next)
              }}
            >
              <option value="system">As the system</option>
              <option value="light">Light</option>
              <option value="dark">Dark</option>
            </SelectField>
          )}
        </Labelled>
      </Box>
    </Page>
  )
}
