import { Box } from '@chakra-ui/react'
import { Link, useRouteError } from 'react-router'
import { asFault } from '../../core/model'
import { Empty } from '../ui'

/** What is shown where there is no screen, or where one broke. */
export function Lost() {
  const error = useRouteError()
  return (
    <Box px="6">
      <Empty
        title={error ? 'This screen broke' : 'There is nothing here'}
        action={<Link to="/">Back to the Desk</Link>}
      >
        {error
          ? `${asFault(error).message} Nothing you did is lost; everything saves itself.`
          : 'The address leads nowhere. Perhaps what was here has been removed.'}
      </Empty>
    </Box>
  )
}
