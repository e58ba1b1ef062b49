import { Link } from 'react-router';
import { say } from '../wire/words.ts';

/** The two ways to prove who one is, and back to where one was. `again`: whoever is signed in proves it once more. */
export function ProveWho({ back, again = false }: { readonly back: string; readonly again?: boolean }) {
  const to = `back=${encodeURIComponent(back)}`;
  return (
    <p className="mt-5 flex flex-wrap gap-x-6 gap-y-3">
      <Link to={`/come-in?${again ? 'again&' : ''}${to}`}>{say('desk:proveFromOutside')}</Link>
      <Link to={`/sign-in?${to}`}>{say('desk:proveAsStaff')}</Link>
    </p>
  );
}
