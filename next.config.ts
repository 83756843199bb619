import type { NextConfig } from 'next';
import serverExternalPackages from './server-packages.json';

const headers = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
];

const config: NextConfig = {
  serverExternalPackages,
  // Types are checked by `npm test`; the build need not do it again.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
  experimental: { serverActions: { bodySizeLimit: '4mb' } },
  redirects: async () => [{ source: '/favicon.ico', destination: '/icon.svg', permanent: true }],
  headers: async () => [{ source: '/:path*', headers }],
};

export default config;
