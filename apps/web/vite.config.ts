import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { oneIdEach } from './ids.ts';
import { pieces } from './pieces.ts';

/** Which build this is: what a device has kept of another one is not read. */
const build = process.env.TEMPERA_BUILD ?? 'dev';
/** The solver of the opening's plan is the largest piece. */
const LARGEST_FILE_BYTES = 6_000_000;

const define = { __TEMPERA_BUILD__: JSON.stringify(build) };

export default defineConfig(async ({ command }) => ({
  plugins: [
    react(),
    oneIdEach(),
    VitePWA({
      registerType: 'prompt',
      // Registered by `kernel/offline.ts`, once the first view stands.
      injectRegister: null,
      manifest: {
        name: 'Tempera',
        short_name: 'Tempera',
        description: 'The calibration desk of an espresso bar.',
        start_url: '/',
        display: 'standalone',
        background_color: '#f4ecdd',
        theme_color: '#f4ecdd',
        icons: [
          { src: '/mark-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/mark-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/mark-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      workbox: {
        inlineWorkboxRuntime: true,
        // Fonts beyond the Latin alphabets come when they are needed.
        globPatterns: ['**/*.{js,css,svg,png,wasm}', '**/*latin*.woff2'],
        // The page itself comes from the server with its word for styles: it is kept as it was answered.
        globIgnores: ['**/index.html'],
        additionalManifestEntries: [{ url: '/', revision: build }],
        navigateFallback: '/',
        navigateFallbackDenylist: [/^\/(api|healthz|readyz)/],
        directoryIndex: null,
        cleanupOutdatedCaches: true,
        maximumFileSizeToCacheInBytes: LARGEST_FILE_BYTES,
      },
    }),
  ],
  define,
  worker: { format: 'es' as const },
  optimizeDeps: { include: ['highs'] },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    // For the bench: what each page needs.
    manifest: true,
    rolldownOptions: {
      output: {
        codeSplitting: { groups: command === 'build' ? await pieces(define) : [] },
      },
    },
  },
}));
