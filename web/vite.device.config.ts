import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vite';

/** The page for tests of what the device does alone. */
export default defineConfig({
  plugins: [svelte()],
  build: { outDir: 'dist-device', emptyOutDir: true, rollupOptions: { input: 'device.html' } },
});
