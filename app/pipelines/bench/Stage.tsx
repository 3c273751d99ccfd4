import { Box, Heading } from '@chakra-ui/react'
import { Mono } from '../../ui'
import { PartData } from './PartData'

/** One part of the worked example, on the pipe; it opens to its data. */
export function Stage({
  title,
  note,
  data,
  children,
}: {
  title: string
  note: string
  /** What came in and out, which the part opens to. */
  data: unknown
  children: React.ReactNode
}) {
  return (
    <Box position="relative" pb="6">
      <Box
        aria-hidden
        position="absolute"
        left="-33px"
        top="2px"
        w="19px"
        h="18px"
        borderWidth="2px"
        borderColor="water"
        bg="raised"
        borderRadius="sm"
      />
      <PartData
        title={title}
        data={data}
        head={
          <>
            <Heading as="h3" fontSize="15px" fontWeight="600">
              {title}
            </Heading>
            <Mono>{note}</Mono>
          </>
        }
      />
      {children}
    </Box>
  )
}
