import { useCallback, useEffect, useRef, useState } from 'react';

const AFTER_CLICK = 120;

/**
 * The fields somebody has left, so that their problems may be shown. A field that is left by
 * pressing on something else counts only when that press is over: a message that appears in between
 * would move the page under the finger and swallow the click.
 */
export function useLeftFields(): {
  readonly left: ReadonlySet<string>;
  readonly leave: (field: string) => void;
  readonly forgetLeft: () => void;
} {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const pending = useRef(new Set<string>());
  const pressed = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const settle = useCallback((): void => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      if (pressed.current || pending.current.size === 0) return;
      const now = [...pending.current];
      pending.current.clear();
      setLeft((before) => new Set([...before, ...now]));
    }, AFTER_CLICK);
  }, []);

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

  const leave = useCallback(
    (field: string): void => {
      pending.current.add(field);
      settle();
    },
    [settle],
  );
  return { left, leave, forgetLeft: () => setLeft(new Set()) };
}
