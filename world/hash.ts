/** A number of 32 bits that stands for a text: FNV-1a (Fowler, Noll and Vo 1991). */
export function hash(text: string): number {
  let value = 0x811c9dc5
  for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(i), 0x01000193)
  return value
}
