import { Box, chakra, Heading } from '@chakra-ui/react'
import { Mono } from '../../ui'
import { PartData } from './PartData'

/** One part of the worked example, on the pipe; it opens to its data, and some can be held still. */
export function Stage({
  title,
  note,
  data,
  held,
  onHold,
  children,
}: {
  title: string
  note: string
  /** What came in and out, which the part opens to. */
  data: unknown
  held?: boolean
  onHold?: () => void
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
        bg={held ? 'water' : 'raised'}
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
            {onHold && (
              <chakra.button
                type="button"
                fontSize="13px"
                color={held ? 'amberText' : 'waterText'}
                cursor="pointer"
                aria-pressed={held ?? false}
                aria-label={`Hold “${title}” still`}
                title="It stays as it is while other parts are edited"
                onClick={onHold}
              >
                {held ? 'held still' : 'hold still'}
              </chakra.button>
            )}
          </>
        }
      />
      {children}
    </Box>
  )
}
