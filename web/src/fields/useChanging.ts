import { useEffect, useRef } from 'react';

/** An open page says so often what is being changed on it, ms: more than twice in the time after which it is forgotten. */
const AGAIN = 20_000;

/**
 * Tells others which fields somebody has begun to change, again and again while they do, and that they are done.
 * `say`: tells it; where it can’t be told nothing is lost.
 */
export function useChanging(fields: readonly string[], say: (fields: readonly string[]) => unknown): void {
  const latest = useRef(say);
  latest.current = say;
  const told = useRef(false);
  const named = fields.join(' ');
  useEffect(() => {
    if (named === '' && !told.current) return;
    told.current = named !== '';
    const tell = (): void => void latest.current(named === '' ? [] : named.split(' '));
    tell();
    if (named === '') return;
    const timer = setInterval(tell, AGAIN);
    return () => clearInterval(timer);
  }, [named]);
  useEffect(
    () => () => {
      if (told.current) latest.current([]);
      told.current = false;
    },
    [],
  );
}
