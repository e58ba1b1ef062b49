import { useEffect } from 'react';
import { useDispatch } from 'react-redux';
import { api } from '../wire/api.ts';

/**
 * Listens for changed requests and reads anew what is on the page. Several changes in a moment are
 * read once.
 */
export function useLive(): void {
  const dispatch = useDispatch();
  useEffect(() => {
    const source = new EventSource('/api/live');
    let waiting: ReturnType<typeof setTimeout> | undefined;
    source.addEventListener('changed', () => {
      clearTimeout(waiting);
      waiting = setTimeout(() => dispatch(api.util.invalidateTags(['ledger', 'sheet'])), 150);
    });
    return () => {
      clearTimeout(waiting);
      source.close();
    };
  }, [dispatch]);
}
