import { openPage } from './demo'
const { browser, page } = await openPage()
await page.addInitScript(() => { (window as any).__name = (f: any) => f })
await page.goto('http://localhost:4710/')
await page.getByRole('heading', { level: 1 }).first().waitFor({ timeout: 60000 })
await page.waitForTimeout(3000)
await page.evaluate(async () => {
  const db: IDBDatabase = await new Promise((r) => { const q = indexedDB.open('dripline'); q.onsuccess = () => r(q.result) })
  const get = (s: string): Promise<any[]> => new Promise((r) => { const q = db.transaction(s).objectStore(s).getAll(); q.onsuccess = () => r(q.result) })
  const brand = (await get('brands'))[0].id
  const blobs: Blob[] = []
  for (let i = 0; i < 40; i++) { const c = new OffscreenCanvas(240, 160); const x = c.getContext('2d')!; for (let k = 0; k < 60; k++) { x.fillStyle = `hsl(${(i * 37 + k * 11) % 360} 50% ${20 + (k * 7) % 60}%)`; x.fillRect((k * 53 + i * 31) % 240, (k * 29) % 160, 60, 40) } blobs.push(await c.convertToBlob({ type: 'image/jpeg' })) }
  const tx = db.transaction(['pictures', 'blobs'], 'readwrite')
  for (let i = 0; i < 5000; i++) {
    const hash = i.toString(16).padStart(64, '0'); const url = `picture:${hash}`
    let h = BigInt(i) * 0x9e3779b97f4a7c15n; h = (h ^ (h >> 30n)) & 0xffffffffffffffffn; h = (h * 0xbf58476d1ce4e5b9n) & 0xffffffffffffffffn; h ^= h >> 27n; h = (h * 0x94d049bb133111ebn) & 0xffffffffffffffffn
    tx.objectStore('pictures').put({ id: `${brand} ${url}`, brand, url, origin: 'file', title: `Picture ${i} of the slip`, alt: 'x', credit: null, width: 1200, height: 800, bytes: 1000, print: h.toString(16).padStart(16, '0'), addedAt: new Date(1.7e12 + i * 1e6).toISOString() })
    tx.objectStore('blobs').put({ id: `small ${url}`, blob: blobs[i % 40] })
  }
  await new Promise((r) => { tx.oncomplete = r })
  db.close()
})
const t0 = Date.now()
await page.goto('http://localhost:4710/writing/pictures')
await page.getByRole('group', { name: 'Pictures of the library' }).waitFor()
console.log('open', Date.now() - t0, 'ms')
await page.waitForTimeout(2000)
const frames = await page.evaluate(async () => {
  const box = document.querySelector('[aria-label="Pictures of the library"]')!
  const times: number[] = []; let last = performance.now()
  for (let i = 0; i < 240; i++) { box.scrollTop += 60; await new Promise((r) => requestAnimationFrame(r)); const n = performance.now(); times.push(n - last); last = n }
  return times
})
frames.sort((a, b) => a - b)
console.log('frames', frames.length, 'median', frames[120]!.toFixed(1), '95%', frames[228]!.toFixed(1), 'max', frames.at(-1)!.toFixed(1), 'over 20:', frames.filter((f) => f > 20).length)
const again = async (step: number, label: string) => {
  const f = await page.evaluate(async (step) => {
    const box = document.querySelector('[aria-label="Pictures of the library"]')!
    box.scrollTop = 3000; await new Promise((r) => setTimeout(r, 800))
    const long: number[] = []; const po = new PerformanceObserver((l) => l.getEntries().forEach((e) => long.push(Math.round(e.duration)))); po.observe({ entryTypes: ['longtask'] })
    const times: number[] = []; let last = performance.now()
    for (let i = 0; i < 240; i++) { box.scrollTop += step; await new Promise((r) => requestAnimationFrame(r)); const n = performance.now(); times.push(n - last); last = n }
    return { times, long }
  }, step)
  f.times.sort((a, b) => a - b)
  console.log(label, 'median', f.times[120]!.toFixed(1), '95%', f.times[228]!.toFixed(1), 'max', f.times.at(-1)!.toFixed(1), 'over 20:', f.times.filter((x) => x > 20).length, 'long', f.long.join(','))
}
await again(0, 'still'); await again(10, '10 px'); await again(20, '20 px'); await again(60, '60 px'); await again(0, 'still')
const t1 = Date.now(); await page.fill('input[type=search]', 'slip 49'); await page.waitForTimeout(0); console.log('typed', Date.now() - t1)
await page.waitForTimeout(600); await page.screenshot({ path: '/tmp/lib5.png' })
await browser.close()
