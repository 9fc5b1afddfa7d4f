import '@fontsource/literata/600.css';
import '@fontsource/sofia-sans/400.css';
import '@fontsource/sofia-sans/500.css';
import '@fontsource/sofia-sans/600.css';
import '@fontsource/sofia-sans-condensed/400.css';
import '@fontsource/sofia-sans-condensed/600.css';
import './globals.css';
import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { Toasts } from '@/ui/Toasts';

export const metadata: Metadata = {
  title: { default: 'Clembo', template: '%s · Clembo' },
  description: 'Pages that show executives and clients how the plan stands.',
};

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>
        {children}
        <Toasts />
      </body>
    </html>
  );
}
