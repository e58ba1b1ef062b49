import { mayBeOff, type UsualKind, usualIn, waysOfUsual } from '@tolvek/core/telling';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { NoticeWords } from './NoticeWords.tsx';
import { asUsual, editUsual, noticesOf } from './noticeEdits.ts';
import { Ways } from './Ways.tsx';

interface UsualItemProps {
  readonly kind: UsualKind;
  readonly isOpen: boolean;
  readonly open: (isOpen: boolean) => void;
}

/** One of the usual notices: as it always is, in words of the form, or not sent. */
export function UsualItem({ kind, isOpen, open }: UsualItemProps) {
  const { editing } = useBinder();
  const { draft, change } = editing;
  const is = usualIn(noticesOf(draft), kind);
  const name = say(`notices:usual.${kind}`);
  const hasWords = is !== undefined && [is.subject, is.text].some((words) => words.trim() !== '');
  const state = is === undefined ? 'isUsual' : is.off ? 'isNotSent' : hasWords ? 'isOwnWords' : 'isOtherWays';
  return (
    <li id={`at-${kind}`} className={`border-b border-rule py-2 ${isOpen ? 'bg-sheet px-4' : ''}`}>
      <div className="flex items-start gap-3">
        <div className="min-w-0 flex-1">
          <h3 className="text-[15.5px]">{name}</h3>
          <p className="text-[13px] text-soft">{say(`notices:says.${kind}`)}</p>
        </div>
        <span className={`pt-1 text-[13px] ${is === undefined ? 'text-soft' : 'text-brass'}`}>
          {say(`notices:${state}`)}
        </span>
        <Button
          onClick={() => open(!isOpen)}
          aria-expanded={isOpen}
          aria-label={isOpen ? undefined : say('notices:changeOf', { name })}
        >
          {say(isOpen ? 'workshop:stepDone' : 'workshop:changeStep')}
        </Button>
      </div>
      {isOpen ? (
        <div className="mt-2 grid grid-cols-[120px_1fr] gap-x-3 gap-y-2.5 max-sm:grid-cols-1">
          <NoticeWords
            id={kind}
            notice={is ?? { subject: '', text: '' }}
            set={(next) => change((before) => editUsual(before, kind, next))}
            usual={say('notices:subjectAsUsual')}
          />
          <Ways
            ways={waysOfUsual(noticesOf(draft), kind)}
            always={!mayBeOff(kind)}
            set={(ways) => change((before) => editUsual(before, kind, { ways }))}
          />
          <span />
          <span className="flex flex-wrap items-center gap-x-4 gap-y-2">
            {mayBeOff(kind) ? (
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="accent-green"
                  checked={!is?.off}
                  onChange={(event) => change((before) => editUsual(before, kind, { isOff: !event.target.checked }))}
                />
                {say('notices:sendIt')}
              </label>
            ) : (
              <span className="text-[13px] text-soft">{say('notices:always')}</span>
            )}
            {is ? (
              <button
                type="button"
                className="text-green underline"
                onClick={() => change((before) => asUsual(before, kind))}
              >
                {say('notices:putBack')}
              </button>
            ) : null}
          </span>
        </div>
      ) : null}
    </li>
  );
}
