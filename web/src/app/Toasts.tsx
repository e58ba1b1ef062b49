import { Toaster } from 'sonner';

/** Short news at the foot of the page. */
export const Toasts = () => (
  <Toaster
    position="bottom-center"
    toastOptions={{
      unstyled: true,
      classNames: {
        toast: 'flex items-center gap-3 rounded-md border border-rule-strong bg-sheet px-4 py-3 text-ink shadow-lg',
        error: 'border-brick',
      },
    }}
  />
);
