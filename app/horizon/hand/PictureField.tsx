import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { creditLine, ownPictureHash, type HandWords, type LibraryPicture } from '../../../core/model'
import { takeFromStock, takePicture, titleOfFile, usePicture } from '../../data'
import { useWork } from '../../shell'
import { Picker, StockPicker } from '../../writing'
import { attempt, Button, FileButton, Labelled, say, TextField } from '../../ui'
import { isPictureAddress } from './words'

type Picture = HandWords['picture']

/** A post's picture: by its address on the web, out of the library, the stock or a file, which may be dropped here, and what it shows. */
export function PictureField({
  picture,
  onChange,
}: {
  picture: Picture
  onChange: (picture: Picture) => void
}) {
  const { brand } = useWork()
  const own = picture !== null && ownPictureHash(picture.url) !== null
  const whole = picture !== null && isPictureAddress(picture.url)
  const shown = usePicture(whole ? picture.url : null)
  const [open, setOpen] = useState<'library' | 'stock' | null>(null)
  const toggle = (which: 'library' | 'stock'): void => setOpen(open === which ? null : which)
  const set = (url: string): void => onChange(url ? { url, alt: picture?.alt ?? '' } : null)
  const show = ({ url, alt, credit }: Pick<LibraryPicture, 'url' | 'alt' | 'credit'>): void => {
    onChange({ url, alt, ...(credit ? { credit } : {}) })
    setOpen(null)
  }
  const take = (file: File): void =>
    void attempt(async () => {
      show(await takePicture(brand.id, file, { origin: 'file', title: titleOfFile(file) }))
      say('The picture was taken in.')
    })
  return (
    <Box
      role="group"
      aria-label="Picture"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const [dropped] = e.dataTransfer.files
        if (dropped) take(dropped)
      }}
    >
      <Flex gap="3" align="flex-end">
        {own ? (
          <Box flex="1" fontSize="13px" color="soft" pb="2">
            A picture of this workspace.
          </Box>
        ) : (
          <Box flex="1">
            <Labelled label="Picture address, or drop a file here">
              {(id) => (
                <TextField
                  id={id}
                  w="full"
                  type="url"
                  placeholder="https://"
                  aria-invalid={picture !== null && !whole}
                  _invalid={{ borderColor: 'plum' }}
                  value={picture?.url ?? ''}
                  onChange={(e) => set(e.target.value.trim())}
                />
              )}
            </Labelled>
          </Box>
        )}
        <Button aria-expanded={open === 'library'} onClick={() => toggle('library')}>
          Library
        </Button>
        <Button aria-expanded={open === 'stock'} onClick={() => toggle('stock')}>
          Stock
        </Button>
        <FileButton accept="image/*" label="A picture" onFile={take}>
          {own ? 'Another file' : 'From a file'}
        </FileButton>
        {picture && <Button onClick={() => onChange(null)}>Leave it out</Button>}
      </Flex>
      {open === 'library' && (
        <Box mt="3">
          <Picker
            brand={brand.id}
            noCards
            onTake={({ source, alt, credit }) => {
              if (source.from === 'address') show({ url: source.url, alt, credit })
            }}
          />
        </Box>
      )}
      {open === 'stock' && (
        <Box mt="3">
          <StockPicker
            words=""
            onTake={(found) => void attempt(async () => show(await takeFromStock(brand.id, found)))}
          />
        </Box>
      )}
      {picture && (
        <Flex gap="3" mt="3" align="flex-end">
          {shown && (
            <chakra.img
              src={shown}
              alt={picture.alt}
              w="84px"
              h="56px"
              objectFit="cover"
              borderRadius="sm"
              bg="raised"
              flexShrink={0}
            />
          )}
          <Box flex="1">
            <Labelled label="What it shows, in a sentence">
              {(id) => (
                <TextField
                  id={id}
                  w="full"
                  value={picture.alt}
                  onChange={(e) => onChange({ ...picture, alt: e.target.value })}
                />
              )}
            </Labelled>
            {picture.credit?.mustShow && (
              <Box fontSize="12px" color="soft" mt="1">
                The caption will say “{creditLine(picture.credit)}”.
              </Box>
            )}
          </Box>
        </Flex>
      )}
    </Box>
  )
}
