import { useEffect, useRef } from 'react';
import { useDispatch } from 'react-redux';
import { api } from '../wire/api.ts';

/** Several changes in so short a time are read once, ms. */
const TOGETHER = 150;

/**
 * Listens for changed requests and reads anew what is on the page; all of it where it became otherwise who may see and
 * do what. Several changes in a moment are read once. `hear`: takes the numbers of those that changed, where what is on the
 * page asks for them one by one; then only what is counted is read anew besides.
 */
export function useLive(hear?: ((numbers: readonly string[]) => void) | null): void {
  const dispatch = useDispatch();
  const latest = useRef(hear);
  latest.current = hear;
  useEffect(() => {
    const source = new EventSource('/api/live');
    let waiting: ReturnType<typeof setTimeout> | undefined;
    let isAll = false;
    let wasOpen = false;
    const numbers = new Set<string>();
    const tell = (): void => {
      const changed = [...numbers];
      numbers.clear();
      if (isAll) dispatch(api.util.invalidateTags(['ledger', 'sheet', 'mine', 'me']));
      else if (latest.current && changed.length > 0) {
        dispatch(api.util.invalidateTags(['counts', 'sheet']));
        latest.current(changed);
      } else dispatch(api.util.invalidateTags(['ledger', 'sheet']));
      isAll = false;
    };
    const soon = (): void => {
      clearTimeout(waiting);
      waiting = setTimeout(tell, TOGETHER);
    };
    source.addEventListener('changed', ({ data }) => {
      const { number } = JSON.parse(data) as { readonly number: string };
      numbers.add(number);
      soon();
    });
    // What came while nothing could be heard is not known: all is read anew.
    source.addEventListener('open', () => {
      if (wasOpen) {
        isAll = true;
        soon();
      }
      wasOpen = true;
    });
    // Who is at what is asked by itself: nothing else is read anew for it.
    source.addEventListener('at-work', () => dispatch(api.util.invalidateTags(['atWork'])));
    source.addEventListener('email', () => dispatch(api.util.invalidateTags(['ledger', 'mail'])));
    source.addEventListener('access', () => {
      isAll = true;
      soon();
    });
    return () => {
      clearTimeout(waiting);
      source.close();
    };
  }, [dispatch]);
}
