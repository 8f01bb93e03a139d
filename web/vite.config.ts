import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react({ compiler: true })],
  build: {
    target: 'es2023',
    sourcemap: false,
    chunkSizeWarningLimit: 1500,
    rolldownOptions: {
      output: {
        // A hundred small files take longer to ask for than to read.
        codeSplitting: {
          groups: [
            { name: 'libraries', test: /node_modules/, minShareCount: 2 },
            { name: 'shared', minShareCount: 3 },
          ],
        },
      },
    },
  },
})
