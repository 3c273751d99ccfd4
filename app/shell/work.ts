import { createContext, useContext } from 'react'
import type { Brand, Workspace } from '../../core/model'

/** What every screen works on: the brand in hand, and the workspace around it. */
export interface Work {
  brand: Brand
  brands: Brand[]
  workspace: Workspace
  chooseBrand: (id: string) => void
}

export const WorkContext = createContext<Work | null>(null)

/** The brand in hand and its workspace. Screens are shown only once both are there. */
export function useWork(): Work {
  const work = useContext(WorkContext)
  if (!work) throw new Error('A screen was shown outside the shell.')
  return work
}
