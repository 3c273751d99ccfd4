import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { asFault, type Account, type Post, type Trial } from '../../../core/model'
import { network } from '../../../core/networks'
import { deliverTrial } from '../../data'
import { Button, count } from '../../ui'
import { PartData } from './PartData'

/** Sends one post of the worked example for real, shows it as it arrived, and has it taken down again. */
export function TestDelivery({ post, account }: { post: Post; account: Account }) {
  const [step, setStep] = useState<'idle' | 'asks' | 'sending'>('idle')
  const [trial, setTrial] = useState<Trial | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  const { name } = network(post.network)
  const send = async (): Promise<void> => {
    setStep('sending')
    setTrial(null)
    setTrouble(null)
    try {
      setTrial(await deliverTrial(post))
    } catch (error) {
      setTrouble(asFault(error).message)
    }
    setStep('idle')
  }
  return (
    <Box fontSize="13px">
      {step === 'asks' ? (
        <Flex gap="2" align="center" wrap="wrap" role="group" aria-label="Test delivery">
          <Box>
            It stands on @{account.handle} for a moment, and whoever looks then sees it; {name} then takes it
            down.
          </Box>
          <Button size="sm" look="water" autoFocus onClick={() => void send()}>
            Send it
          </Button>
          <Button size="sm" onClick={() => setStep('idle')}>
            Not now
          </Button>
        </Flex>
      ) : (
        <Button
          size="sm"
          look="quiet"
          position="absolute"
          top="0"
          right="0"
          disabled={step === 'sending' || account.health.state !== 'linked'}
          title={account.health.state === 'linked' ? undefined : account.health.message}
          onClick={() => setStep('asks')}
        >
          {step === 'sending'
            ? 'Sending, reading, taking down …'
            : trial
              ? 'Test delivery again'
              : 'Test delivery'}
        </Button>
      )}
      <Box role="status">
        {trouble && <Box color="plumText">{trouble}</Box>}
        {trial && (
          <Box
            borderLeftWidth="3px"
            borderColor={trial.arrived ? (trial.takenDown ? 'moss' : 'amber') : 'plum'}
            pl="3"
            my="1"
          >
            <PartData
              title={`The test delivery to ${name}`}
              data={trial.attempts}
              head={
                <Box color={trial.arrived ? (trial.takenDown ? 'mossText' : 'amberText') : 'plumText'}>
                  {trial.message}
                </Box>
              }
            />
            {trial.shown && (
              <Box fontFamily="reading" fontSize="15px" whiteSpace="pre-wrap">
                {trial.shown.text}
                {trial.shown.parts.map((part, i) => (
                  <Box key={i} mt="1">
                    {part}
                  </Box>
                ))}
                {trial.shown.poll.map((answer, i) => (
                  <Box key={i}>○ {answer}</Box>
                ))}
                {trial.shown.firstComment && (
                  <Box color="soft">First comment: {trial.shown.firstComment}</Box>
                )}
              </Box>
            )}
            {trial.shown && trial.shown.pictures > 0 && (
              <Box color="soft">{count(trial.shown.pictures, 'picture')} stood with it.</Box>
            )}
            {trial.arrived && !trial.shown && (
              <Box color="soft">{name} took it and did not give it back to read.</Box>
            )}
          </Box>
        )}
      </Box>
    </Box>
  )
}
