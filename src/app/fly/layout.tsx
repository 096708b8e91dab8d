import type { Metadata, Viewport } from 'next';
import '@/ui/fly/fly.css';

export const metadata: Metadata = { title: 'Fly' };
export const viewport: Viewport = { width: 'device-width', initialScale: 1, viewportFit: 'cover' };

/** One static shell: no server data in its HTML, so that the same page serves every flight. */
export default function FlyLayout({ children }: { children: React.ReactNode }) {
  return children;
}
