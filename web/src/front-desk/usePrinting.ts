import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';

/**
 * Whether the page is being printed: what is only for paper is drawn then, and not at every letter
 * before.
 */
export function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const media = matchMedia('print');
    const put = (on: boolean) => () => flushSync(() => setPrinting(on));
    const [begin, end] = [put(true), put(false)];
    const follow = (): void => setPrinting(media.matches);
    addEventListener('beforeprint', begin);
    addEventListener('afterprint', end);
    media.addEventListener('change', follow);
    return () => {
      removeEventListener('beforeprint', begin);
      removeEventListener('afterprint', end);
      media.removeEventListener('change', follow);
    };
  }, []);
  return printing;
}
