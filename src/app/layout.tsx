import '@fontsource/b612/latin-400.css';
import '@fontsource/b612/latin-700.css';
import '@fontsource/b612-mono/latin-400.css';
import '@fontsource/b612-mono/latin-700.css';
import 'bootstrap/dist/css/bootstrap.min.css';
import '@/ui/shared/theme.css';
import type { Metadata, Viewport } from 'next';
import { Hydrated } from '@/ui/shared/hydrated';
import { THEME_SCRIPT } from '@/ui/shared/theme-script';

export const metadata: Metadata = {
  title: { default: 'Jeito', template: '%s · Jeito' },
  description: 'Checkouts of licensed pilots: brief, fly, debrief and sign with the evidence beside it.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function RootLayout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en" data-bs-theme="day" suppressHydrationWarning>
      <head>
        <script dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
      </head>
      <body>
        {children}
        <Hydrated />
      </body>
    </html>
  );
}
