import { Box, chakra, Flex } from '@chakra-ui/react'
import { useRef } from 'react'
import { useDropzone } from 'react-dropzone'
import { isOwnFilm, type WholePiece } from '../../core/model'
import { during, giveTranscript } from '../data'
import { giveFilm } from '../data/more'
import { attempt, Button, clip, Mono, say } from '../ui'

/** A video's picture and chapters, and where its transcript, and its film where that is not on the web, are dropped. */
export function VideoHead({
  piece,
  hideFillers,
  onFillers,
}: {
  piece: WholePiece
  hideFillers: boolean
  onFillers: () => void
}) {
  const video = piece.video
  const image = piece.images[0]
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    noClick: true,
    maxFiles: 1,
    onDrop: ([file]) =>
      file &&
      void attempt(() => (/^(?:video|audio)\//.test(file.type) ? giveIt(file) : readTranscript(file))),
  })
  const film = useRef<HTMLInputElement>(null)
  const readTranscript = async (file: File): Promise<void> => {
    const text = await file.text()
    await during(`Reading ${file.name}`, () => giveTranscript(piece.id, text))
    say('The transcript is read; its passages are marked.')
  }
  const giveIt = async (file: File): Promise<void> => {
    await during(`Looking through ${file.name}`, () => giveFilm(piece.id, file))
    say('Clips of this piece are cut from this file. It stays in this browser, and in no bundle.')
  }
  const wordless = (video?.transcript ?? null) === null
  return (
    <Flex
      {...(getRootProps() as object)}
      gap="4"
      mb="5"
      p="3"
      borderWidth="1px"
      borderStyle={wordless || isDragActive ? 'dashed' : 'solid'}
      borderColor={isDragActive ? 'water' : wordless ? 'amber' : 'hairline'}
      bg="raised"
      borderRadius="md"
    >
      <input {...getInputProps({ 'aria-label': 'A transcript of this video' })} />
      {image && (
        <chakra.img
          src={image.url}
          alt={image.alt}
          w="200px"
          h="auto"
          maxH="130px"
          objectFit="cover"
          borderRadius="sm"
        />
      )}
      <Box flex="1" minW="0" fontSize="13px">
        {wordless ? (
          <Box>
            <Box fontWeight="600">It has no transcript yet</Box>
            <Box color="soft">
              Drop a WebVTT, SRT or timed text file here; its words become passages with their times.
            </Box>
          </Box>
        ) : (
          video?.chapters.map((c) => (
            <Flex key={c.at} gap="2">
              <Mono w="44px" textAlign="right">
                {clip(c.at)}
              </Mono>
              <Box truncate>{c.title}</Box>
            </Flex>
          ))
        )}
        {video?.chaptersFound && (
          <Box color="soft" mt="1">
            The video names no chapters; these were found where the topic changes.
          </Box>
        )}
        {!wordless && video?.sound && video.chapters.length === 0 && (
          <Box color="soft">
            A recording without pictures{video.seconds ? `, ${clip(video.seconds)} long` : ''}.
          </Box>
        )}
        {video?.url && isOwnFilm(video.url) && (
          <Box color="soft" mt="1">
            Its clips are cut from a file that lies in this browser.
          </Box>
        )}
        <Flex gap="2" mt="2" flexWrap="wrap">
          <Button size="sm" onClick={open}>
            {wordless ? 'Choose a file' : 'Another transcript'}
          </Button>
          <Button size="sm" onClick={() => film.current?.click()}>
            {`${video?.url && isOwnFilm(video.url) ? 'Another' : 'Its'} ${video?.sound ? 'recording' : 'film'} from a file`}
          </Button>
          <input
            ref={film}
            hidden
            type="file"
            accept="video/*,audio/*"
            aria-label="The film of this piece"
            onChange={(e) => {
              const [file] = e.target.files ?? []
              if (file) void attempt(() => giveIt(file))
              e.target.value = ''
            }}
          />
          {!wordless && (
            <Button size="sm" aria-pressed={hideFillers} onClick={onFillers}>
              {hideFillers ? 'Show the ums' : 'Hide the ums'}
            </Button>
          )}
        </Flex>
      </Box>
    </Flex>
  )
}
