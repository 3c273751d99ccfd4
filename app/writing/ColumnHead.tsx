import { Box, Flex } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { Account } from '../../core/model'
import { NetworkMark } from '../ui'

/** The head of an account's column in a sheet; `children` stand behind its handle. */
export function ColumnHead({ account, children }: { account: Account; children?: ReactNode }) {
  return (
    <Flex
      role="columnheader"
      align="center"
      gap="2"
      px="3"
      h="36px"
      borderLeftWidth="1px"
      borderColor="hairline"
      minW="0"
    >
      <NetworkMark id={account.network} />
      <Box fontWeight="600" truncate>
        @{account.handle}
      </Box>
      {children}
    </Flex>
  )
}
