import { useCallback, useEffect, useRef } from 'react';

const AFTER_CLICK = 120;

/**
 * The fields somebody has left, so that their problems may be shown. A field that is left by
 * pressing on something else counts only when that press is over: a message that appears in between
 * would move the page under the finger and swallow the click.
 */
export function useLeftFields(told: (fields: readonly string[]) => void): (field: string) => void {
  const pending = useRef(new Set<string>());
  const pressed = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const settle = useCallback((): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      if (pressed.current || pending.current.size === 0) return;
      const now = [...pending.current];
      pending.current.clear();
      told(now);
    }, AFTER_CLICK);
  }, [told]);

  useEffect(() => {
    const down = (): void => {
      pressed.current = true;
    };
    const up = (): void => {
      pressed.current = false;
      settle();
    };
    addEventListener('pointerdown', down, true);
    addEventListener('pointerup', up, true);
    addEventListener('pointercancel', up, true);
    return () => {
      clearTimeout(timer.current);
      removeEventListener('pointerdown', down, true);
      removeEventListener('pointerup', up, true);
      removeEventListener('pointercancel', up, true);
    };
  }, [settle]);

  return useCallback(
    (field: string): void => {
      pending.current.add(field);
      settle();
    },
    [settle],
  );
}
