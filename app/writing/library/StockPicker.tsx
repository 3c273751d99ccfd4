import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import useSWR from 'swr'
import { asFault, creditLine, type StockPicture } from '../../../core/model'
import { searchStock, useStock } from '../../data'
import { Button, count, TextField, useLater } from '../../ui'

/** The connected stock: pictures are looked for by words, page by page, and taken with a click or Enter. */
export function StockPicker({
  words: proposed,
  onTake,
}: {
  /** What is looked for at first. */
  words: string
  onTake: (picture: StockPicture) => void
}) {
  const stock = useStock()
  const [words, setWords] = useState(proposed)
  const [page, setPage] = useState(1)
  // As one stops typing, so that not every letter is a search.
  const asked = useLater(words.trim(), 400)
  const { data, error } = useSWR(
    stock?.settings ? ['stock', asked, page] : null,
    ([, ...search]) => searchStock(...search),
    { revalidateOnFocus: false, keepPreviousData: true, shouldRetryOnError: false },
  )
  if (!stock) return null
  if (!stock.settings)
    return (
      <Box fontSize="13px">
        No stock of pictures is connected.{' '}
        <Link to="/settings/services">
          <chakra.span textDecoration="underline">Connect one under Services</chakra.span>
        </Link>
        .
      </Box>
    )
  return (
    <Box>
      <TextField
        type="search"
        aria-label="Search the stock"
        placeholder="Search the stock"
        w="full"
        mb="2"
        value={words}
        onChange={(e) => {
          setWords(e.target.value)
          setPage(1)
        }}
      />
      {error !== undefined && (
        <Box role="alert" fontSize="13px" color="clayText" mb="2">
          {asFault(error).message}
        </Box>
      )}
      {data && (
        <>
          <Flex fontSize="13px" color="soft" mb="1.5" align="center" gap="2">
            <Box flex="1">
              {data.total === 0
                ? 'Nothing is found by these words. Try others.'
                : count(data.total, 'picture')}
            </Box>
            {data.pages > 1 && (
              <>
                <Button
                  size="sm"
                  aria-label="The page before"
                  disabled={page <= 1}
                  onClick={() => setPage(page - 1)}
                >
                  ‹
                </Button>
                {page} of {data.pages}
                <Button
                  size="sm"
                  aria-label="The next page"
                  disabled={page >= data.pages}
                  onClick={() => setPage(page + 1)}
                >
                  ›
                </Button>
              </>
            )}
          </Flex>
          <Box
            display="grid"
            gridTemplateColumns="repeat(auto-fill, minmax(98px, 1fr))"
            gap="2"
            role="group"
            aria-label="Pictures of the stock"
          >
            {data.pictures.map((picture) => (
              <Offered key={picture.id} picture={picture} onTake={() => onTake(picture)} />
            ))}
          </Box>
        </>
      )}
    </Box>
  )
}

function Offered({
  picture: { title, preview, credit },
  onTake,
}: {
  picture: StockPicture
  onTake: () => void
}) {
  const terms = `${creditLine(credit)}. ${credit.licence}${credit.mustShow ? ', has to be named' : ''}.`
  return (
    <chakra.button
      type="button"
      aria-label={`${title}. ${terms}`}
      title={`${title}. ${terms}`}
      onClick={onTake}
      textAlign="left"
      cursor="pointer"
      minW="0"
    >
      <chakra.img
        src={preview}
        alt=""
        loading="lazy"
        w="full"
        aspectRatio="3 / 2"
        objectFit="cover"
        borderRadius="sm"
        borderWidth="1px"
        borderColor="hairline"
        bg="paper"
      />
      <Box fontSize="12px" truncate>
        {title}
      </Box>
      <Box fontSize="11px" color={credit.mustShow ? 'clayText' : 'soft'} truncate>
        {credit.mustShow ? 'name it: ' : ''}
        {credit.author}
      </Box>
    </chakra.button>
  )
}
