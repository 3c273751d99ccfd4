import { nanoid } from 'nanoid'
import { Brand, HouseStyle, rebased, USUAL_WEIGHTS, usualLook } from '../../../core/model'
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

/**
 * Makes a brand as a screen had it into another one, and moves the posts that have to; both in one action. What else was
 * changed meanwhile, or learned, stays (`rebased`).
 */
export async function saveBrand(seen: Brand, brand: Brand, moves: readonly Move[] = []): Promise<void> {
  const posts = moves.map((m) => m.post)
  await commitRecalled({ brand: brand.id, label: `Change ${brand.name}` }, posts, [
    patch('brands', brand.id, (kept) => {
      const merged = rebased(seen, brand, kept)
      // Two changes that do not go together, such as a least length over the greatest: the later one counts.
      return Brand.safeParse(merged).success ? merged : brand
    }),
    ...writesOf(moves),
  ])
}

/** Makes a brand that begins with what another one has (`brandLike`); what does so is loaded when it is first wanted. */
export async function copyBrand(of: string, name: string): Promise<string> {
  return (await import('./copyBrand')).brandLike(of, name)
}
