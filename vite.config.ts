import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants } from 'node:zlib'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'
import decompress from 'woff2-encoder/decompress'

const port = Number(process.env['PORT'] ?? 4600)

/** Writes each script and style sheet a second time, compressed, for the server to send. */
function compressed(): Plugin {
  return {
    name: 'compressed',
    apply: 'build',
    writeBundle: ({ dir }) => {
      const assets = join(dir ?? '', 'assets')
      for (const name of readdirSync(assets).filter((n) => /\.(js|css)$/.test(n))) {
        const bytes = readFileSync(join(assets, name))
        const quality = bytes.length > 1_000_000 ? 5 : 9
        writeFileSync(
          join(assets, `${name}.br`),
          brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: quality } }),
        )
      }
    },
  }
}

/**
 * Gives a WOFF2 font asked for with `?sfnt` unpacked, in base64: what unpacks it makes functions out of text, which the
 * page's content security policy forbids in the browser.
 */
function unpackedFonts(): Plugin {
  return {
    name: 'unpacked-fonts',
    enforce: 'pre',
    load: async (id) => {
      const [file, query] = id.split('?')
      if (query !== 'sfnt' || !file) return null
      const bytes = await decompress(readFileSync(file))
      return `export default ${JSON.stringify(Buffer.from(bytes).toString('base64'))}`
    },
  }
}

export default defineConfig({
  root: 'app',
  plugins: [react(), compressed(), unpackedFonts()],
  build: { outDir: '../dist/app', emptyOutDir: true, target: 'es2023', chunkSizeWarningLimit: 5000 },
  worker: { format: 'es', plugins: () => [unpackedFonts()] },
  server: { proxy: { '/api': { target: `http://localhost:${port}` } } },
})
