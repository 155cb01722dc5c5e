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
    // The policy stands with the package it is for, so that it holds before any other part has used that.
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: 'zod', test: /node_modules[\\/]zod|web[\\/]src[\\/]policy/ }] } },
    },
  },
})
