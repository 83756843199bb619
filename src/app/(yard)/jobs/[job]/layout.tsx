import type { ReactNode } from 'react';

export async function generateMetadata({ params }: { params: Promise<{ job: string }> }) {
  return { title: `Job ${(await params).job}` };
}

export default function JobLayout({ children }: { children: ReactNode }) {
  return children;
}
