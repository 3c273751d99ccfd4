import { defineConfig } from 'vite'

/** The stand-in world of the demo as JavaScript, so that a start compiles nothing; its texts and films stay in `demo/`. */
export default defineConfig({
  plugins: [
    {
      name: 'beside-the-sources',
      transform: (code) => code.replaceAll('import.meta.dirname', '`${import.meta.dirname}/../../demo`'),
    },
  ],
  build: {
    ssr: 'demo/world.ts',
    outDir: 'dist/demo',
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: { output: { entryFileNames: 'world.js' } },
  },
})
