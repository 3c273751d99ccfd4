import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { isZone } from '../../core/model'
import { makeBrand, type Endable } from '../data'
import { attempt, Button, Labelled, SelectField, TextField } from '../ui'
import { applyTheme, storedTheme, type Theme } from './colours'
import { Holding } from './Holding'
import { Popover } from './Popover'
import { useWork } from './work'

const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone')

/** The mark and the brand in hand; opens the list of brands and makes a new one. */
export function BrandMenu() {
  const { brand, brands, chooseBrand } = useWork()
  const navigate = useNavigate()
  const face = (
    <Flex align="center" gap="2.5">
      <chakra.svg viewBox="0 0 32 32" w="30px" h="30px" color="water" aria-hidden>
        <path d="M3 9h12a8 8 0 0 1 8 8v7" fill="none" stroke="currentColor" strokeWidth="6" />
        <rect
          x="3"
          y="3"
          width="6"
          height="12"
          rx="2"
          fill="var(--chakra-colors-raised)"
          stroke="currentColor"
          strokeWidth="2.4"
        />
        <rect
          x="17"
          y="23"
          width="12"
          height="6"
          rx="2"
          fill="var(--chakra-colors-raised)"
          stroke="currentColor"
          strokeWidth="2.4"
        />
      </chakra.svg>
      <Box textAlign="left">
        <Box fontWeight="700" fontSize="15px" lineHeight="1.2">
          Dripline
        </Box>
        <Box fontSize="12px" color="soft" maxW="120px" truncate>
          {brand.name} ▾
        </Box>
      </Box>
    </Flex>
  )
  return (
    <Popover label={`Brand: ${brand.name}`} face={face} align="left">
      {(close) => (
        <Box w="290px">
          <Box fontSize="xs" color="soft" mb="1">
            Brands
          </Box>
          {brands.map((b) => (
            <chakra.button
              key={b.id}
              type="button"
              display="block"
              w="full"
              textAlign="left"
              px="2"
              py="1.5"
              borderRadius="sm"
              cursor="pointer"
              bg={b.id === brand.id ? 'waterTint' : undefined}
              fontWeight={b.id === brand.id ? '600' : '400'}
              _hover={{ bg: 'waterTint' }}
              onClick={() => {
                chooseBrand(b.id)
                close()
                void navigate('/')
              }}
            >
              {b.name}
              {b.endedAt ? ' · ended' : b.held ? ' · held' : ''}
            </chakra.button>
          ))}
          <HoldBrand />
          <NewBrand
            onMade={(id) => {
              chooseBrand(id)
              close()
              void navigate('/')
            }}
          />
          <Box
            borderTopWidth="1px"
            borderColor="hairline"
            mt="3"
            pt="3"
            display="flex"
            justifyContent="space-between"
            alignItems="center"
          >
            <Link to="/workspace" onClick={close}>
              <chakra.span color="waterText" textDecoration="underline" textUnderlineOffset="3px">
                Workspace and bundle
              </chakra.span>
            </Link>
            <Link to="/services" onClick={close}>
              <chakra.span color="waterText" textDecoration="underline" textUnderlineOffset="3px">
                Services
              </chakra.span>
            </Link>
            <ThemeChoice />
          </Box>
        </Box>
      )}
    </Popover>
  )
}

function HoldBrand() {
  const { brand } = useWork()
  const what: Endable = { table: 'brands', id: brand.id, brand: brand.id, name: brand.name }
  return (
    <Flex mt="2" align="center" gap="2">
      <Box flex="1" minW="0" truncate fontSize="13px">
        {brand.name}
      </Box>
      <Holding what={what} held={brand.held} endedAt={brand.endedAt} align="left" />
    </Flex>
  )
}

function NewBrand({ onMade }: { onMade: (id: string) => void }) {
  const [name, setName] = useState('')
  const [zone, setZone] = useState(() => Intl.DateTimeFormat().resolvedOptions().timeZone)
  return (
    <chakra.form
      borderTopWidth="1px"
      borderColor="hairline"
      mt="3"
      pt="3"
      display="flex"
      flexDirection="column"
      gap="2"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault()
        if (name.trim() && isZone(zone)) void attempt(async () => onMade(await makeBrand(name, zone)))
      }}
    >
      <Labelled label="A new brand">
        {(id) => (
          <TextField
            id={id}
            w="full"
            value={name}
            placeholder="Its name"
            onChange={(e) => setName(e.target.value)}
          />
        )}
      </Labelled>
      <Labelled label="Its time zone">
        {(id) => (
          <SelectField id={id} w="full" value={zone} onChange={(e) => setZone(e.target.value)}>
            {(ZONES.includes(zone) ? ZONES : [zone, ...ZONES]).map((z) => (
              <option key={z}>{z}</option>
            ))}
          </SelectField>
        )}
      </Labelled>
      <Button type="submit" look="water" disabled={!name.trim()}>
        Make the brand
      </Button>
    </chakra.form>
  )
}

function ThemeChoice() {
  const [theme, setTheme] = useState<Theme>(storedTheme)
  return (
    <SelectField
      aria-label="Theme"
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
  )
}
