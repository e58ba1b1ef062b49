import { useEffect } from 'react';
import { Toaster } from 'sonner';
import { newsShown } from '../ui/news.ts';
import { say } from '../wire/words.ts';

/** Short news at the foot of the page. */
export function Toasts() {
  useEffect(newsShown, []);
  return (
    <Toaster
      position="bottom-center"
      containerAriaLabel={say('common:news')}
      toastOptions={{
        unstyled: true,
        classNames: {
          toast:
            'font-sans flex items-center gap-3 rounded-md border border-rule-strong bg-sheet px-4 py-3 text-ink shadow-lg',
          error: 'border-brick',
        },
      }}
    />
  );
}
