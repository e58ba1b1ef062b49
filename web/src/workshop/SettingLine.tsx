import type { ReactNode } from 'react';

/** One setting in two columns: what it is called, and what it is set with. */
export const SettingLine = ({ label, htmlFor, children }: { label: string; htmlFor?: string; children: ReactNode }) => (
  <>
    {htmlFor ? (
      <label htmlFor={htmlFor} className="pt-1.5 text-soft">
        {label}
      </label>
    ) : (
      <span className="pt-1.5 text-soft">{label}</span>
    )}
    <div className="flex min-w-0 flex-wrap items-start gap-x-3 gap-y-2">{children}</div>
  </>
);
