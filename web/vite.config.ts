import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  // Faces are fetched as files by the worker, never inlined.
  assetsInclude: ['**/*.ttf'],
  ssr: { noExternal: ['@kerbe/core', '@kerbe/machine'], external: ['clipper2-wasm'] },
});
