import { useSyncExternalStore } from 'react';
import type { ExternalToast } from 'sonner';

// What shows news is fetched with the first of them where nobody is signed in: nobody waits for it to type.
let isWanted = false;
const watching = new Set<() => void>();
let showing: () => void = () => undefined;
const shown = new Promise<void>((done) => {
  showing = done;
});

const watch = (look: () => void) => {
  watching.add(look);
  return () => watching.delete(look);
};

/** Whether something was said at the foot of the page. */
export const useNewsWanted = (): boolean => useSyncExternalStore(watch, () => isWanted);

/** Says that what shows news is there. */
export const newsShown = (): void => showing();

async function showNews(text: string, more: ExternalToast | undefined, isBad: boolean): Promise<void> {
  isWanted = true;
  for (const look of watching) look();
  const [{ toast }] = await Promise.all([import('sonner'), shown]);
  if (isBad) toast.error(text, more);
  else toast(text, more);
}

/** Says something at the foot of the page for a moment, to whoever is there. */
export const news = (text: string, more?: ExternalToast): void => void showNews(text, more, false);

/** The same for what went wrong. */
export const badNews = (text: string, more?: ExternalToast): void => void showNews(text, more, true);
