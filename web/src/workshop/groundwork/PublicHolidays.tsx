import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import type { SpecialDay } from './calendarDraft.ts';
import { groundApi } from './endpoints.ts';

/** Years that are brought in at once: this one and the two after it. */
const YEARS = 3;

/** Brings in the public holidays of a country or of a region of it. */
export function PublicHolidays({ year, add }: { year: number; add: (days: readonly SpecialDay[]) => void }) {
  const [country, setCountry] = useState('');
  const [region, setRegion] = useState('');
  const { data } = groundApi.useCountriesQuery();
  const [ask, { isFetching }] = groundApi.useLazyHolidaysQuery();
  const regions = data?.countries.find(({ code }) => code === country)?.regions ?? [];
  const bring = async (): Promise<void> => {
    const query = { ...(region ? { region } : {}), from: year, to: year + YEARS - 1 };
    const answer = await ask({ country, query });
    if (answer.error) toast.error(refusalInWords(problemOf(answer.error)));
    else if (answer.data) {
      add(answer.data.holidays);
      toast(say('ground:holidaysAdded', { count: answer.data.holidays.length }));
    }
  };
  return (
    <div className="mt-4 flex flex-wrap items-end gap-3">
      <span>
        <label htmlFor="holiday-country" className="block text-[13px] text-soft">
          {say('ground:publicHolidays')}
        </label>
        <select
          id="holiday-country"
          className="input w-auto"
          value={country}
          onChange={(event) => {
            setCountry(event.target.value);
            setRegion('');
          }}
        >
          <option value="">{say('ground:chooseCountry')}</option>
          {data?.countries.map((each) => (
            <option key={each.code} value={each.code}>
              {each.name}
            </option>
          ))}
        </select>
      </span>
      {regions.length > 0 ? (
        <select
          aria-label={say('ground:region')}
          className="input w-auto"
          value={region}
          onChange={(event) => setRegion(event.target.value)}
        >
          <option value="">{say('ground:wholeCountry')}</option>
          {regions.map((each) => (
            <option key={each.code} value={each.code}>
              {each.name}
            </option>
          ))}
        </select>
      ) : null}
      <Button disabled={country === '' || isFetching} onClick={() => void bring()}>
        {say('ground:addHolidays', { from: String(year), to: String(year + YEARS - 1) })}
      </Button>
    </div>
  );
}
