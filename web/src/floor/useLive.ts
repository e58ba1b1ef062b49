import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api } from '../wire/api.ts';

/**
 * Listens for changed requests and reads anew what is on the page; all of it where it became otherwise who may see and
 * do what. Several changes in a moment are read once.
 */
export function useLive(): void {
  const dispatch = useDispatch();
  useEffect(() => {
    const source = new EventSource('/api/live');
    let waiting: ReturnType<typeof setTimeout> | undefined;
    let isAll = false;
    const soon = (): void => {
      clearTimeout(waiting);
      waiting = setTimeout(() => {
        dispatch(api.util.invalidateTags(isAll ? ['ledger', 'sheet', 'mine', 'me'] : ['ledger', 'sheet']));
        isAll = false;
      }, 150);
    };
    source.addEventListener('changed', soon);
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
