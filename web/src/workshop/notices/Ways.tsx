import { NOTICE_WAYS, type NoticeWay } from '@tolvek/core/telling';
import { say } from '../../wire/words.ts';
import { SettingLine } from '../SettingLine.tsx';

interface WaysProps {
  readonly ways: readonly NoticeWay[];
  /** Whether the email goes in any case. */
  readonly always?: boolean;
  readonly set: (ways: readonly NoticeWay[]) => void;
}

/** How a notice reaches people: by email, as a text message, by both, or under the bell alone. */
export function Ways({ ways, always = false, set }: WaysProps) {
  return (
    <SettingLine label={say('notices:byWays')}>
      <span className="flex flex-wrap items-center gap-x-5 gap-y-1">
        {NOTICE_WAYS.map((way) => (
          <label key={way} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={ways.includes(way)}
              disabled={always && way === 'email'}
              onChange={({ target }) =>
                set(NOTICE_WAYS.filter((each) => (each === way ? target.checked : ways.includes(each))))
              }
            />
            {say(way === 'email' ? 'notices:byEmail' : 'notices:byText')}
          </label>
        ))}
        {ways.length === 0 ? <span className="text-soft">{say('notices:byNone')}</span> : null}
      </span>
    </SettingLine>
  );
}
