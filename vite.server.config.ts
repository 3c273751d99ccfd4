import { defineConfig } from 'vite'

/** The server as JavaScript, for a run without a compiler; packages stay in node_modules. */
export default defineConfig({
  build: {
    ssr: 'server/main.ts',
    outDir: 'dist/server',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: { output: { entryFileNames: 'main.js' } },
  },
})
