import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import { ANGLES, Brief, type Account, type Brand, type Pipeline, type Recipe } from '../../../core/model'
import { network } from '../../../core/networks'
import type { PipelineChange } from '../../data'
import { BriefFields } from '../../writing'
import { Bound, Choice, Toggle, toggled, Typed } from '../rules/fields'
import { named, Part, Sentence, Several } from './parts'

/** What a pipeline makes of a piece: passages, angles, briefs, pictures, and a line that closes each caption. */
export function MakePart({
  pipeline,
  brand,
  accounts,
  onSave,
}: {
  pipeline: Pipeline
  brand: Brand
  /** The accounts to which it releases. */
  accounts: readonly Account[]
  onSave: (change: PipelineChange, label: string) => void
}) {
  const { make } = pipeline
  const save = (change: Partial<Recipe['make']>, label: string): void => onSave({ make: change }, label)
  const networks = [...new Set([...accounts.map((a) => a.network), ...make.briefs.map((b) => b.network)])]
  const left = ANGLES.filter((a) => make.angles.length > 0 && !make.angles.includes(a))
  const angles =
    make.angles.length === 0
      ? 'all angles'
      : left.length <= 3
        ? `all angles but ${named(left, '')}`
        : named(make.angles, 'all angles')
  return (
    <Part title="Make">
      <Sentence>
        <Bound
          label="Passages at most"
          open="all"
          value={make.passages}
          onChange={(n) =>
            save(
              { passages: n === null || n < 1 ? null : Math.min(60, Math.round(n)) },
              'Change how many passages a pipeline takes',
            )
          }
        />
        of the kept passages, the best, varied, in
        <Several label="Angles" words={angles}>
          <Flex gap="1.5" wrap="wrap" py="1">
            {ANGLES.map((angle) => {
              const on = make.angles.length === 0 || make.angles.includes(angle)
              return (
                <Toggle
                  key={angle}
                  on={on}
                  onClick={() => {
                    const next = toggled(make.angles.length ? make.angles : ANGLES, angle)
                    const kept = next.length === ANGLES.length || next.length === 0 ? [] : next
                    save({ angles: kept }, 'Change a pipeline’s angles')
                  }}
                >
                  {angle}
                </Toggle>
              )
            })}
          </Flex>
        </Several>
      </Sentence>
      <Sentence>
        Captions in the
        <chakra.span fontWeight="600" textDecoration="underline" textDecorationColor="water">
          <Link to="/writing/house">house style</Link>
        </chakra.span>
        by
        <Several
          label="Briefs"
          words={
            make.briefs.length
              ? `a brief of its own for ${named(
                  make.briefs.map((b) => network(b.network).name),
                  '',
                )}`
              : 'the brand’s briefs'
          }
        >
          {networks.length === 0 && <Box color="soft">Choose an account below first.</Box>}
          {networks.map((id) => {
            const own = make.briefs.find((b) => b.network === id)
            const standing = own ?? brand.briefs.find((b) => b.network === id)
            const others = make.briefs.filter((b) => b.network !== id)
            return (
              <Box key={id} py="1">
                <Flex gap="2" align="center">
                  <Box fontWeight="600" w="110px">
                    {network(id).name}
                  </Box>
                  <Choice
                    label={`Brief for ${network(id).name}`}
                    value={own ? 'own' : 'brand'}
                    options={[
                      ['brand', 'the brand’s brief'],
                      ['own', 'a brief of its own'],
                    ]}
                    onChange={(v) =>
                      save(
                        {
                          briefs:
                            v === 'own' ? [...others, standing ?? Brief.parse({ network: id })] : others,
                        },
                        'Change a pipeline’s briefs',
                      )
                    }
                  />
                </Flex>
                {own && (
                  <Box py="2">
                    <BriefFields
                      brand={brand}
                      id={id}
                      own={own}
                      given="Go by the brand’s brief"
                      onSave={(brief) =>
                        save({ briefs: brief ? [...others, brief] : others }, 'Change a pipeline’s briefs')
                      }
                    />
                  </Box>
                )}
              </Box>
            )
          })}
        </Several>
      </Sentence>
      <Sentence>
        Pictures
        <Choice
          label="Pictures"
          value={make.pictures}
          options={[
            ['piece and cards', 'from the piece, and cards where they say more'],
            ['from the piece', 'from the piece alone'],
            ['cards', 'cards alone'],
            ['none', 'none'],
          ]}
          onChange={(v) => save({ pictures: v as typeof make.pictures }, 'Change a pipeline’s pictures')}
        />
      </Sentence>
      <Sentence>
        Each caption closes with
        <Typed
          label="The line that closes each caption"
          wide
          placeholder="what the briefs say"
          value={make.after ?? ''}
          onChange={(text) => save({ after: text || null }, 'Change a pipeline’s closing line')}
        />
      </Sentence>
    </Part>
  )
}
