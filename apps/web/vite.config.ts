import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
  worker: { format: 'es' },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      // Half a megabyte that only the web worker needs: the page uses none of it, so it may be left out there.
      treeshake: { moduleSideEffects: [{ test: /google-libphonenumber/, sideEffects: false }] },
      onLog: (level, log, handle) => (log.code === 'EVAL' ? undefined : handle(level, log)),
    },
  },
})
