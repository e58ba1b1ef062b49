import type { AnswerOf } from '@tolvek/contract';
import { useDispatch } from 'react-redux';
import { Link } from 'react-router';
import { say } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { FloorFrame } from '../FloorFrame.tsx';
import { Helps } from './Helps.tsx';
import { LikelyLate } from './LikelyLate.tsx';
import { Score } from './Score.tsx';
import { TeamsNow } from './TeamsNow.tsx';

/** Fewer finished requests say little of how long they take. */
const FEW = 30;

/** What will probably be late, why, and what would help. */
export function ForecastPage() {
  const { data, error, refetch } = floorApi.useForecastQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <FloorFrame title={say('forecast:title')} intro={say('forecast:intro')} error={error} again={refetch}>
      {data ? <Ahead data={data} /> : null}
    </FloorFrame>
  );
}

function Ahead({ data }: { data: AnswerOf<'forecast'> }) {
  if (data.open === 0) return <p className="mt-6">{say('forecast:nothingOpen')}</p>;
  return (
    <>
      {data.from < FEW ? (
        <p role="status" className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
          {say('forecast:tooFew', { count: FEW })}
        </p>
      ) : null}
      <Counts data={data} />
      <div className="mt-7 grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_25rem]">
        <LikelyLate requests={data.requests} more={data.more} />
        <div className="grid content-start gap-8">
          <Helps teams={data.teams} />
          <TeamsNow teams={data.teams} />
          <Score />
        </div>
      </div>
    </>
  );
}

/** How many there are of each: what is over already leads to its tray. */
function Counts({ data }: { data: AnswerOf<'forecast'> }) {
  const dispatch = useDispatch();
  const counts = [
    { key: 'isLikely', count: data.likely, look: 'text-brick' },
    { key: 'isLate', count: data.late, look: 'text-brick' },
    { key: 'isInTime', count: data.inTime, look: 'text-green' },
    { key: 'tooFar', count: data.beyond, look: 'text-soft' },
  ] as const;
  return (
    <>
      <ul className="mt-4 flex flex-wrap gap-x-9 gap-y-2 border-y border-rule py-3">
        {counts
          .filter(({ count, key }) => count > 0 || key !== 'tooFar')
          .map(({ key, count, look }) => (
            <li key={key} className="flex items-baseline gap-2">
              <span className={`font-serif text-[26px] tabular-nums ${look}`}>{count}</span>
              {key === 'isLate' && count > 0 ? (
                <Link to="/floor/late">{say('forecast:isLate')}</Link>
              ) : (
                <span>{say(`forecast:${key}`)}</span>
              )}
            </li>
          ))}
      </ul>
      <p className="mt-2 flex flex-wrap gap-x-4 text-[13px] text-soft">
        {say('forecast:asOf', { at: data.at, count: data.from })}
        <button
          type="button"
          className="text-green underline"
          onClick={() => dispatch(floorApi.util.invalidateTags(['forecast']))}
        >
          {say('forecast:again')}
        </button>
      </p>
    </>
  );
}
