import { useEffect } from 'react';

/** J and K, or the arrows, go to the next and the previous request. */
export function useRowKeys(
  rows: readonly { number: string }[],
  open: string | undefined,
  onOpen: (number: string) => void,
): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        target.closest('input, textarea, select, [role="menu"], [role="dialog"]')
      )
        return;
      const step =
        event.key === 'j' || event.key === 'ArrowDown' ? 1 : event.key === 'k' || event.key === 'ArrowUp' ? -1 : 0;
      if (step === 0 || rows.length === 0) return;
      const at = rows.findIndex((row) => row.number === open);
      const next = rows[at === -1 ? 0 : Math.min(rows.length - 1, Math.max(0, at + step))];
      if (!next) return;
      event.preventDefault();
      onOpen(next.number);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [rows, open, onOpen]);
}
