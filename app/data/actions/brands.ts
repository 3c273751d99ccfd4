import { nanoid } from 'nanoid'
import { HouseStyle, USUAL_WEIGHTS, usualLook, type Brand } from '../../../core/model'
import { nowIso } from '../clock'
import { commit, patch, put } from '../store'
import { commitRecalled } from './life'
import { writesOf, type Move } from './plan'

/** Makes an empty brand and gives its id. */
export async function makeBrand(name: string, zone: string): Promise<string> {
  const brand: Brand = {
    id: nanoid(),
    name: name.trim(),
    zone,
    quiet: [],
    slots: [],
    weights: USUAL_WEIGHTS,
    houseStyle: HouseStyle.parse({}),
    look: usualLook(name),
    briefs: [],
    held: null,
    endedAt: null,
    createdAt: nowIso(),
  }
  await commit({ brand: brand.id, label: `Make the brand ${brand.name}` }, [put('brands', brand)])
  return brand.id
}

/** Changes a brand, and moves the posts that have to; both in one action. */
export async function saveBrand(brand: Brand, moves: readonly Move[] = []): Promise<void> {
  const posts = moves.map((m) => m.post)
  await commitRecalled({ brand: brand.id, label: `Change ${brand.name}` }, posts, [
    // What was learned meanwhile stays: whoever changes a brand says nothing of that.
    patch('brands', brand.id, ({ learned }) => ({ ...brand, ...(learned ? { learned } : {}) })),
    ...writesOf(moves),
  ])
}

/** Makes a brand that begins with what another one has (`brandLike`); what does so is loaded when it is first wanted. */
export async function copyBrand(of: string, name: string): Promise<string> {
  return (await import('./copyBrand')).brandLike(of, name)
}
