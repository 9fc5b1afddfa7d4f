import { join } from 'node:path';
import type { NextConfig } from 'next';

const config: NextConfig = {
  distDir: process.env.CLEMBO_DIST ?? '.next',
  transpilePackages: [
    '@clembo/core',
    '@clembo/formats',
    '@clembo/scene',
    '@clembo/render',
    '@clembo/starters',
    '@clembo/sync',
    '@clembo/store',
  ],
  serverExternalPackages: [
    'web-ifc',
    '@resvg/resvg-js',
    'pdfkit',
    'pg',
    'pg-copy-streams',
    'drizzle-orm',
    'graphile-worker',
    'pino',
    'prom-client',
    'rate-limiter-flexible',
  ],
  turbopack: { root: join(import.meta.dirname, '../..') },
  poweredByHeader: false,
  devIndicators: false,
  typescript: { ignoreBuildErrors: true }, // `npm test` checks the types of the whole workspace
  async headers() {
    return [
      {
        // Pages that are shared say for themselves who may show them.
        source: '/:path((?!s/).*)',
        headers: [
          { key: 'X-Content-Type-Options', value: 'nosniff' },
          { key: 'Referrer-Policy', value: 'same-origin' },
          { key: 'X-Frame-Options', value: 'DENY' },
        ],
      },
      {
        source: '/api/:path*',
        headers: [{ key: 'Content-Security-Policy', value: "default-src 'none'; frame-ancestors 'none'; sandbox" }],
      },
    ];
  },
};

export default config;
