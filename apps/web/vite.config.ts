import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  worker: { format: 'es' },
  optimizeDeps: { include: ['highs'] },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    // For the bench: what each page needs.
    manifest: true,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'react', test: /node_modules[\\/](react|react-dom|scheduler|react-router)[\\/]/ },
            { name: 'mantine', test: /node_modules[\\/]@mantine[\\/](core|hooks)[\\/]/ },
            { name: 'query', test: /node_modules[\\/](@tanstack|idb-keyval)[\\/]/ },
            { name: 'zod', test: /node_modules[\\/]zod[\\/]/ },
          ],
        },
      },
    },
  },
});
