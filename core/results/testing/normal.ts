/** Numbers of the standard normal distribution out of evenly spread ones between 0 and 1 (Box and Muller 1958). */
export function normals(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}
