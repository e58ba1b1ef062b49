import type { TrayKey } from '@tolvek/contract';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say } from '../wire/words.ts';
import { BesideTrays } from './BesideTrays.tsx';
import { floorApi } from './endpoints.ts';
import { GiveSeveral } from './GiveSeveral.tsx';
import { Horizon } from './Horizon.tsx';
import { Ledger } from './Ledger.tsx';
import { Troubles } from './Troubles.tsx';
import { useChosen } from './useChosen.ts';
import { useLive } from './useLive.ts';

const TRAYS: readonly TrayKey[] = [
  ...([
    'arrived',
    'mine',
    'team',
    'deciding',
    'undecided',
    'proposed',
    'paused',
    'late',
    'followed',
    'shared',
  ] as const),
  ...(['all', 'things'] as const),
];

/** The Floor: trays at the left, the ledger in the middle, the request sheet at the right. */
export function Floor() {
  const { tray: asked = 'arrived', number } = useParams();
  const tray = TRAYS.find((each) => each === asked);
  const { data: me } = meApi.useMeQuery();
  const { data: trays, error } = floorApi.useTraysQuery();
  const [search, setSearch] = useSearchParams();
  const find = search.get('find') ?? '';
  const navigate = useNavigate();
  const putFind = useCallback(
    (words: string): void => setSearch(words ? { find: words } : {}, { replace: true }),
    [setSearch],
  );
  const { chosen, choose, begin } = useChosen(`${tray} ${find}`);
  const label = tray ? say(`floor:tray.${tray}`) : '';
  useTitle(number ?? label);
  useLive();
  if (!tray) return <Navigate to="/floor/arrived" replace />;
  if (me && !me.person) return <ToSignIn />;
  if (error)
    return (
      <main className="p-6">
        <Trouble error={error} />
      </main>
    );
  const mayGive = me?.person?.rights.some((right) => right.startsWith('assign:')) === true && tray !== 'things';
  const suffix = find ? `?find=${encodeURIComponent(find)}` : '';
  return (
    <BesideTrays number={number} back={`/floor/${tray}${suffix}`}>
      {trays ? <Troubles {...trays} /> : null}
      <div className="px-[22px]">
        <div className="flex items-baseline justify-between gap-4">
          <h1>{label}</h1>
          <span className="flex-1" />
          {mayGive ? (
            <button
              type="button"
              className="text-[13px] text-green underline"
              aria-pressed={chosen !== null}
              onClick={begin}
            >
              {say(chosen ? 'floor:chooseNoMore' : 'floor:chooseSome')}
            </button>
          ) : null}
          <Find key={tray} value={find} opened={search.has('find')} change={putFind} />
        </div>
        <p className="text-soft">{say(`floor:says.${tray}`)}</p>
        {trays && trays.horizon.length > 0 && !['all', 'things', 'shared', 'followed', 'proposed'].includes(tray) ? (
          <Horizon bars={trays.horizon} />
        ) : null}
      </div>
      {chosen && mayGive ? <GiveSeveral chosen={chosen} drop={(numbers) => choose(numbers, false)} /> : null}
      <Ledger
        chosen={mayGive ? chosen : null}
        choose={choose}
        tray={tray}
        find={find}
        open={number}
        suffix={suffix}
        empty={say(`floor:empty.${tray}`)}
        onOpen={(chosen) => navigate(`/floor/${tray}/${chosen}${suffix}`)}
      />
    </BesideTrays>
  );
}

/**
 * Finds as one types. The words go into the address a moment later, so that a fast hand loses no
 * letter.
 */
function Find({ value, opened, change }: { value: string; opened: boolean; change: (value: string) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [typed, setTyped] = useState(value);
  useEffect(() => {
    if (opened) input.current?.focus();
  }, [opened]);
  useEffect(() => {
    if (typed === value) return;
    const waiting = setTimeout(() => change(typed), 150);
    return () => clearTimeout(waiting);
  }, [typed, value, change]);
  return (
    <input
      ref={input}
      type="search"
      aria-label={say('floor:findBy')}
      placeholder={say('floor:findHint')}
      className="input max-w-56 py-1"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
    />
  );
}
