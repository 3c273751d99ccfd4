import { useMemo } from 'react'
import { libraryOf, type LibraryEntry } from '../../../core/pictures'
import { useRows } from '../../data'

/** The library of a brand with what shows each picture; undefined until it is there. */
export function useLibrary(brand: string): LibraryEntry[] | undefined {
  const pieces = useRows('pieces', 'brand', brand)
  const pictures = useRows('pictures', 'brand', brand)
  const posts = useRows('posts', 'brand', brand)
  return useMemo(
    () => (pieces && pictures && posts ? libraryOf({ pieces, pictures, posts }) : undefined),
    [pieces, pictures, posts],
  )
}
