import { useEffect, useState } from 'react';

/** What a value is once it has stayed the same for a while, ms: what is typed is not asked for letter by letter. */
export function useSettled<T>(value: T, after = 400): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(value), after);
    return () => clearTimeout(waiting);
  }, [value, after]);
  return settled;
}
