import type { MetadataRoute } from 'next';

/**
 * Jeito as a web application: it opens on one’s home; without a network on the page that leads to the flights of this
 * device, which are a shortcut of their own.
 */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Jeito',
    short_name: 'Jeito',
    description: 'Checkouts of licensed pilots: brief, fly, debrief and sign.',
    id: '/fly',
    start_url: '/board',
    scope: '/',
    display: 'standalone',
    background_color: '#faf8f3',
    theme_color: '#16263a',
    shortcuts: [
      { name: 'Flights on this device', url: '/fly' },
      { name: 'Schedule', url: '/schedule' },
    ],
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
    ],
  };
}
