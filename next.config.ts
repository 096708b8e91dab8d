import type { NextConfig } from 'next';

/** On everything: what a file is, and that no other site takes it in. */
const everywhere = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
];
/** On pages and answers, not on each of their scripts, where they say nothing. */
const documents = [
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  {
    key: 'Permissions-Policy',
    value: ['camera', 'microphone', 'geolocation', 'payment', 'usb', 'serial', 'bluetooth', 'midi', 'display-capture']
      .map((feature) => `${feature}=()`)
      .join(', '),
  },
];

/** What is no page loads and runs nothing; a paper is drawn by the browser’s own viewer. Pages: src/proxy.ts. */
const files = [
  {
    key: 'Content-Security-Policy',
    value:
      "default-src 'none'; object-src 'self'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
  },
];

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'umzug', '@node-rs/argon2', 'pino', 'wawoff2'],
  poweredByHeader: false,
  reactStrictMode: true,
  // Types are a step of their own (`npm run types`, in the lint of every change and in `npm test`): not done twice.
  typescript: { ignoreBuildErrors: true },
  devIndicators: false,
  // Pages take small forms only; what is long goes to the routes of the interface, which no proxy stands before.
  experimental: { proxyClientMaxBodySize: '2mb' },
  outputFileTracingIncludes: { '/*': ['./content/**', './src/server/floor/migrations/**'] },
  headers: async () => [
    { source: '/:path*', headers: everywhere },
    { source: '/((?!_next/).*)', headers: documents },
    { source: '/api/:path*', headers: files },
  ],
};

export default config;
