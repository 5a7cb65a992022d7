import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vitest/config';

export default defineConfig({
	plugins: [
		tailwindcss(),
		svelte(),
		// The page itself without a network, for the line check; what it shows then comes from the phone's own database.
		VitePWA({
			injectRegister: null,
			registerType: 'autoUpdate',
			manifest: {
				name: 'Ruvak',
				short_name: 'Ruvak',
				description: 'Plans sound runs in a venue and checks them on stage.',
				start_url: '/',
				display: 'standalone',
				background_color: '#131210',
				theme_color: '#131210',
				icons: [{ src: '/favicon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }]
			},
			workbox: {
				globPatterns: ['**/*.{js,css,html,woff2,svg}'],
				globIgnores: ['licences/**'],
				navigateFallback: '/index.html',
				navigateFallbackDenylist: [/^\/api\//, /^\/house-authority/],
				maximumFileSizeToCacheInBytes: 4 * 1024 * 1024
			}
		})
	],
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
