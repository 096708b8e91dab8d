import type { NextConfig } from 'next';

const securityHeaders = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  serverExternalPackages: ['sequelize', 'sqlite3', 'umzug', '@node-rs/argon2', 'pino', 'wawoff2'],
  poweredByHeader: false,
  reactStrictMode: true,
  // Types are a step of their own (`npm run types`, in the lint of every change and in `npm test`): not done twice.
  typescript: { ignoreBuildErrors: true },
  devIndicators: false,
  outputFileTracingIncludes: { '/*': ['./content/**', './src/server/db/migrations/**'] },
  headers: async () => [{ source: '/:path*', headers: securityHeaders }],
};

export default config;
