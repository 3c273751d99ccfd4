import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { Button } from './Button'
import { Empty } from './Page'

/** What a screen says that has nothing to show before an account is linked, with the way there. */
export function LinkFirst({ title, children }: { title: string; children: ReactNode }) {
  const navigate = useNavigate()
  return (
    <Box px="6">
      <Empty
        title={title}
        action={
          <Button look="water" onClick={() => void navigate('/dispatch/accounts')}>
            Link an account
          </Button>
        }
      >
        {children}
      </Empty>
    </Box>
  )
}
