import type { AnswerOf } from '@tolvek/contract';
import { Rich } from '../ui/Rich.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { Waits } from './Waits.tsx';

/** So many are listed at first. */
const FIRST = 6;

interface ToFillProps {
  readonly forms: AnswerOf<'frontDesk'>['toFill'];
  /** Whether they are about the request beside which they stand. */
  readonly isAbout?: boolean;
}

/** Whoever reads by the link of an email signs in first: the form was sent to them, and not to whoever has that link. */
const wayTo = ({ id, slug }: ToFillProps['forms'][number]): string => {
  const way = `/ask/${slug}?owed=${id}`;
  return location.pathname.startsWith('/follow/') ? `/come-in?back=${encodeURIComponent(way)}` : way;
};

/** The forms that were sent to somebody and are still to be filled in; nothing where there are none. */
export function ToFill({ forms, isAbout = false }: ToFillProps) {
  if (forms.length === 0) return null;
  const [first, rest] = [forms.slice(0, FIRST), forms.slice(FIRST)];
  return (
    <>
      <h2 className="section-head mt-7">{say(isAbout ? 'desk:weAskYou' : 'desk:toFill')}</h2>
      <ul>{first.map(oneForm)}</ul>
      {rest.length > 0 ? (
        <details>
          <summary className="py-2 text-soft">{say('desk:moreToFill', { count: rest.length })}</summary>
          <ul>{rest.map(oneForm)}</ul>
        </details>
      ) : null}
    </>
  );
}

const oneForm = (form: ToFillProps['forms'][number]) => {
  const { id, title, about, due, late } = form;
  const named = about === null ? title : `${title}: ${told(about)}`;
  return (
    <Waits
      key={id}
      title={about === null ? title : told(about)}
      to={wayTo(form)}
      step={say('desk:fillIn')}
      named={say('desk:fillInNamed', { form: named })}
    >
      <span className="text-soft">
        {about === null ? null : title}
        {about !== null && due !== null ? ' · ' : null}
        {due === null ? null : (
          <span className={late ? 'text-brick' : ''}>
            <Rich text={late ? 'desk:wasNeededBy' : 'desk:neededBy'} filled={{ moment: <DeskMoment at={due} /> }} />
          </span>
        )}
      </span>
    </Waits>
  );
};
