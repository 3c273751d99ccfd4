import { Box } from '@chakra-ui/react'
import type { Post, Remark } from '../../../core/model'
import { clockNow } from '../../data'
import { distance } from '../../ui'

const SAID: Record<Remark['decision'], string> = {
  approve: 'approved it',
  reject: 'rejected it',
  open: 'left it open',
}

/** What reviewers said of a post who read it in a review packet, the newest first. */
export function Remarks({ post }: { post: Post }) {
  return (
    <>
      {[...post.remarks].reverse().map((remark) => (
        <Box
          key={`${remark.by} ${remark.at}`}
          mb="2"
          pl="3"
          borderLeftWidth="4px"
          borderColor={remark.decision === 'reject' ? 'clay' : 'water'}
          fontSize="13px"
        >
          <Box color="soft">
            {remark.by} {SAID[remark.decision]} {distance(remark.at, clockNow())}
          </Box>
          {remark.text && <Box whiteSpace="pre-wrap">{remark.text}</Box>}
        </Box>
      ))}
    </>
  )
}
