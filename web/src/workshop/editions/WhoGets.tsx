import type { AnswerOf } from '@tolvek/contract';
import { ASKING, type Edition, verdictInWords } from '@tolvek/core/form';
import { useDeferredValue, useState } from 'react';
import { Trouble } from '../../ui/Trouble.tsx';
import { Why } from '../../ui/Why.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { MomentPicker } from './MomentPicker.tsx';

type Given = AnswerOf<'editionsGiven'>;

/** Who gets what: everybody against every edition, with why the others are not given. */
export function WhoGets() {
  const { editing, form } = useBinder();
  const editions = editing.draft.editions ?? [];
  const [stage, setStage] = useState(ASKING);
  const [as, setAs] = useState('');
  const [find, setFind] = useState('');
  const [edition, setEdition] = useState<string | null>(null);
  const [changed, setChanged] = useState(false);
  const looking = useDeferredValue(find.trim());
  const query = {
    stage,
    ...(stage !== ASKING && as ? { as } : {}),
    ...(looking ? { find: looking } : {}),
    ...(edition === null ? {} : { edition }),
    ...(changed ? { changed: 'true' } : {}),
  };
  const { data, error } = workshopApi.useEditionsGivenQuery({ key: form.key, query });
  return (
    <>
      <h2>{say('editions:whoGets')}</h2>
      {editions.length === 0 ? <p className="mt-2 text-soft">{say('editions:whoGetsEmpty')}</p> : null}
      <div className="mt-2 flex flex-wrap items-center gap-2 text-[13px]">
        <MomentPicker
          look="input w-auto"
          when={say('editions:atWhich')}
          asWhom={say('editions:asWhom')}
          stage={stage}
          setStage={setStage}
          as={as}
          setAs={setAs}
        />
      </div>
      <input
        type="search"
        className="input mt-2"
        placeholder={say('editions:findAnyone')}
        aria-label={say('editions:findAnyone')}
        value={find}
        onChange={(event) => setFind(event.target.value)}
      />
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px]">
        <select
          className="input w-auto"
          aria-label={say('editions:onlyWho')}
          value={edition ?? '*'}
          onChange={({ target: { value } }) => setEdition(value === '*' ? null : value)}
        >
          <option value="*">{say('editions:anyEdition')}</option>
          {editions.map((each) => (
            <option key={each.id} value={each.id}>
              {each.name || say('editions:unnamed')}
            </option>
          ))}
          <option value="">{say('editions:plain')}</option>
        </select>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={changed}
            onChange={(event) => setChanged(event.target.checked)}
          />
          {say('editions:onlyChanged')}
        </label>
      </div>
      {error ? <Trouble error={error} /> : null}
      {data ? <Table data={data} editions={editions} isWhole={looking === '' && edition === null && !changed} /> : null}
    </>
  );
}

function Table({ data, editions, isWhole }: { data: Given; editions: readonly Edition[]; isWhole: boolean }) {
  return (
    <>
      <p className="mt-2 text-[13px] text-soft">
        {say('editions:everybody', { staff: data.staff, contacts: data.total - data.staff })}
      </p>
      <table className="mt-1 w-full table-fixed border-collapse text-[14px]">
        <thead>
          <tr className="text-left text-[12px] text-soft">
            <th className="w-[44%] py-1 font-semibold">{say('editions:who')}</th>
            <th className="font-semibold">{say('editions:gets')}</th>
          </tr>
        </thead>
        <tbody>
          {isWhole ? (
            <Line
              name={say('editions:somebodyUnknown')}
              detail={say('editions:beforeProof')}
              {...data.unknown}
              {...{ editions, data }}
            />
          ) : null}
          {data.people.map(({ id, name, email, kind, ...given }) => (
            <Line
              key={id}
              {...{ name, editions, data }}
              detail={kind === 'contact' ? say('editions:contact', { email }) : email}
              {...given}
            />
          ))}
        </tbody>
      </table>
      {data.people.length === 0 ? <p className="mt-2 text-soft">{say('editions:nobodyFound')}</p> : null}
      {data.more > 0 ? (
        <p className="mt-2 text-[13px] text-soft">{say('editions:more', { count: data.more })}</p>
      ) : null}
    </>
  );
}

interface LineProps {
  readonly name: string;
  readonly detail: string;
  readonly gets: string | null;
  readonly was?: string | null;
  readonly verdicts: Given['people'][number]['verdicts'];
  readonly editions: readonly Edition[];
  readonly data: Given;
}

function Line({ name, detail, gets, was, verdicts, editions, data }: LineProps) {
  const nameOf = (word: string) => data.words[word] ?? '…';
  const at = editions.findIndex((edition) => edition.id === gets);
  const won = verdicts[at];
  const others = verdicts.flatMap((verdict, index) => (index === at ? [] : [[verdict, index] as const]));
  // Most are not meant by most: what is told at once is what surprises.
  const [telling, silent] = [
    others.filter(([{ is }]) => is !== 'not-in'),
    others.filter(([{ is }]) => is === 'not-in'),
  ];
  const called = (id: string | null): string =>
    id === null ? say('editions:plain') : editions.find((each) => each.id === id)?.name || say('editions:unnamed');
  return (
    <tr className="align-top">
      <td className="border-b border-rule py-1.5 pr-2 break-words">
        {name}
        <small className="block truncate text-[12px] text-soft">{detail}</small>
      </td>
      <td className="border-b border-rule py-1.5">
        {at < 0 ? say('editions:plain') : `${at + 1} ${called(gets)}`}
        {won ? <small className="block text-[12px] text-soft">{told(verdictInWords(won, nameOf))}</small> : null}
        {telling.map(([verdict, index]) => (
          <small
            key={editions[index]?.id ?? index}
            className={`block text-[12px] ${verdict.is === 'out' ? 'text-brick' : 'text-soft'}`}
          >
            {verdict.is === 'fits'
              ? say('editions:alsoFits', { place: index + 1 })
              : say('editions:lost', { place: index + 1, why: verdictInWords(verdict, nameOf) })}
          </small>
        ))}
        {silent.length > 0 ? (
          <small className="block text-[12px] text-soft">
            {say('editions:notMeant', { places: silent.map(([, index]) => String(index + 1)) })}{' '}
            <Why about={say('editions:whyNot', { name })}>
              <ul>
                {silent.map(([verdict, index]) => (
                  <li key={editions[index]?.id ?? index}>
                    {say('editions:lost', { place: index + 1, why: verdictInWords(verdict, nameOf) })}
                  </li>
                ))}
              </ul>
            </Why>
          </small>
        ) : null}
        {was !== undefined && was !== gets ? (
          <small className="block text-[12px] text-amber">{say('editions:getsNow', { name: called(was) })}</small>
        ) : null}
      </td>
    </tr>
  );
}
