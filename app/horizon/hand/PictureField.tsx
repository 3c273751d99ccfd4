import { Box, chakra, Flex } from '@chakra-ui/react'
import { ownPictureHash, type HandWords } from '../../../core/model'
import { takePicture, titleOfFile, usePicture } from '../../data'
import { useWork } from '../../shell'
import { attempt, Button, FileButton, Labelled, say, TextField } from '../../ui'
import { isPictureAddress } from './words'

type Picture = HandWords['picture']

/** A post's picture: by its address on the web or out of a file, which may be dropped here, and what it shows. */
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
  const set = (url: string): void => onChange(url ? { url, alt: picture?.alt ?? '' } : null)
  const take = (file: File): void =>
    void attempt(async () => {
      set((await takePicture(brand.id, file, { origin: 'file', title: titleOfFile(file) })).url)
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
            A picture out of a file; it is kept in this workspace.
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
        <FileButton accept="image/*" label="A picture" onFile={take}>
          {own ? 'Another file' : 'From a file'}
        </FileButton>
        {picture && <Button onClick={() => onChange(null)}>Leave it out</Button>}
      </Flex>
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
          </Box>
        </Flex>
      )}
    </Box>
  )
}
