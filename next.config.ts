import type { NextConfig } from 'next';

const headers = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  serverExternalPackages: [
    'better-sqlite3',
    'knex',
    '@node-rs/argon2',
    'pino',
    'pdfkit',
    'fontkit',
    'nodemailer',
    'fontverter',
    'piscina',
  ],
  // Types are checked by `npm test`; the build need not do it again.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  experimental: { serverActions: { bodySizeLimit: '4mb' } },
  redirects: async () => [{ source: '/favicon.ico', destination: '/icon.svg', permanent: true }],
  headers: async () => [{ source: '/:path*', headers }],
};

export default config;
