import { useCallback, useState } from 'react';

/** Follows files that are sent off as they are chosen: nothing that they belong to is sent before they are here. */
export function useOnTheWay() {
  const [count, setCount] = useState(0);
  const follow = useCallback(async <T>(going: Promise<T>): Promise<T> => {
    setCount((now) => now + 1);
    try {
      return await going;
    } finally {
      // After what waits for it has it, and the next one is on its way.
      setTimeout(() => setCount((now) => now - 1));
    }
  }, []);
  return { isOnTheWay: count > 0, follow };
}
