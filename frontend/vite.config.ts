import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [tailwindcss(), svelte()],
	build: {
		outDir: '../ruvak/web/static',
		emptyOutDir: true,
		// Inlined fonts would be data: addresses, which the content policy refuses.
		assetsInlineLimit: 0,
		modulePreload: { polyfill: false }
	},
	server: { proxy: { '/api': 'http://127.0.0.1:8140' } },
	test: { include: ['src/**/*.test.ts'] }
});
