import type { AnswerOf } from '@tolvek/contract';
import { Trouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';

/** How right the forecasts of past days would have been, beside two simple guesses. */
export function Score() {
  const { data, error, refetch } = floorApi.useForecastScoreQuery();
  return (
    <section aria-labelledby="forecast-score">
      <h2 id="forecast-score" className="section-head">
        {say('forecast:score')}
      </h2>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {!data && !error ? <p className="mt-1 text-soft">{say('forecast:scoreCalculating')}</p> : null}
      {data ? <Came score={data} /> : null}
    </section>
  );
}

function Came({ score }: { score: AnswerOf<'forecastScore'> }) {
  if (score.forecasts === 0) return <p className="mt-1 text-soft">{say('forecast:scoreNone')}</p>;
  const errors = [
    { key: 'brier', error: score.score },
    { key: 'brierNone', error: score.noneLate },
    { key: 'brierUsual', error: score.asUsual },
  ] as const;
  const most = Math.max(...errors.map(({ error }) => error), 0.001);
  return (
    <>
      <p className="mt-1 text-[13.5px]">{say('forecast:scoreIntro', { days: score.days, count: score.forecasts })}</p>
      <dl className="mt-2 grid gap-1.5 text-[13.5px]">
        {errors.map(({ key, error }) => (
          <div key={key} className="grid grid-cols-[minmax(0,1fr)_3.5rem] items-end">
            <dt className={key === 'brier' ? 'font-semibold' : ''}>
              {say(`forecast:${key}`)}
              <span aria-hidden className="block h-[3px] bg-rule">
                <span
                  className={`block h-full ${key === 'brier' ? 'bg-green' : 'bg-brass-mark'}`}
                  style={{ width: `${(error / most) * 100}%` }}
                />
              </span>
            </dt>
            <dd className="text-right tabular-nums">
              {say('forecast:error', { error: Math.round(error * 1_000) / 1_000 })}
            </dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-[12.5px] text-soft">{say('forecast:brierSays')}</p>
      <table className="mt-2 w-full text-[13.5px]">
        <tbody>
          {score.bands.map(({ count, late }, band) =>
            count === 0 ? null : (
              // biome-ignore lint/suspicious/noArrayIndexKey: a tenth is its place
              <tr key={band} className="border-t border-rule">
                <td className="py-1">{say('forecast:band', { from: band * 10, to: band * 10 + 10 })}</td>
                <td className="py-1 text-right tabular-nums">{say('forecast:bandCame', { late, count })}</td>
              </tr>
            ),
          )}
        </tbody>
      </table>
    </>
  );
}
