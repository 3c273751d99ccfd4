/** Waits until something holds; throws where it does not in time. */
export async function until(holds: () => Promise<boolean>, milliseconds = 15_000): Promise<void> {
  const end = Date.now() + milliseconds
  while (Date.now() < end) {
    if (await holds()) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('It did not come about in time.')
}
