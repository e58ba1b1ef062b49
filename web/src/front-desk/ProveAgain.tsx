import { Link } from 'react-router';
import { say } from '../wire/words.ts';

/** A link that was passed on opens nothing: whoever it was sent to proves once more that its address is theirs. */
export const ProveAgain = () => (
  <>
    <h1 className="text-[28px]">{say('desk:proveTitle')}</h1>
    <p className="mt-3">{say('desk:proveSays')}</p>
    <p className="mt-5">
      <Link to={`/come-in?again&back=${encodeURIComponent(`${location.pathname}${location.search}`)}`}>
        {say('desk:signInByEmail')}
      </Link>
    </p>
  </>
);
