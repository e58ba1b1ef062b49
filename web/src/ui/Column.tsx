import type { ReactNode } from 'react';

/** The Front desk's one reading column. */
export const Column = ({ children }: { children: ReactNode }) => (
  <main className="desk mx-auto max-w-[44rem] px-4 pt-6 pb-20 text-[16px]">{children}</main>
);
