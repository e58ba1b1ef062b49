import { useEffect } from 'react';

/** Names the page in the browser's tab and history. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = title ? `${title} · Tolvek` : 'Tolvek';
  }, [title]);
}
