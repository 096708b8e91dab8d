import type { MetadataRoute } from 'next';

/** The cockpit as a web application: it opens on the flights of this device, with or without a network. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Jeito',
    short_name: 'Jeito',
    description: 'Checkouts of licensed pilots: brief, fly, debrief and sign.',
    id: '/fly',
    start_url: '/fly',
    scope: '/',
    display: 'standalone',
    background_color: '#faf8f3',
    theme_color: '#16263a',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
    ],
  };
}
