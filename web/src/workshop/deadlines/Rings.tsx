import { pathName } from '@tolvek/core/approval';
import { type DeadlineRule, deadlineName, type Hearer, MOST_RINGS, type Ring } from '@tolvek/core/deadline';
import { Chip } from '../../ui/Chip.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { HOUR } from '../hours.ts';
import { actOf, actWord, addRing, editRing, onSide, removeRing, sideOf } from './deadlineEdits.ts';
import { useRingNames } from './deadlineSentences.ts';
import { Hearers } from './Hearers.tsx';

/** What happens on the way: when, who is told, what is done, and whether again. */
export function Rings({ rule }: { rule: DeadlineRule }) {
  const { editing } = useBinder();
  const { key, rings } = rule;
  return (
    <>
      <span className="pt-1.5 text-soft">{say('workshop:onTheWay')}</span>
      <div>
        <ul>
          {rings.map((ring, place) => (
            <RingLine key={ring.key} {...{ rule, ring, place }} />
          ))}
        </ul>
        {rings.length < MOST_RINGS ? (
          <button
            type="button"
            className="pt-1.5 text-green underline"
            onClick={() => editing.change((before) => addRing(before, key))}
          >
            {say('workshop:addRing')}
          </button>
        ) : null}
      </div>
    </>
  );
}

const hoursIn = (typed: string): number => Math.max(0, Number(typed) || 0) * HOUR;

function RingLine({ rule, ring, place }: { rule: DeadlineRule; ring: Ring; place: number }) {
  const { editing } = useBinder();
  const { at, days = 0, again, tells } = ring;
  const inDays = ring.days !== undefined;
  const of = { place: place + 1, name: told(deadlineName(rule)) };
  const edit = (next: Partial<Omit<Ring, 'key'>>): void =>
    editing.change((before) => editRing(before, rule.key, ring.key, next));
  const side = sideOf(ring);
  return (
    <li className="mb-2 border-b border-rule pb-2">
      <div className="flex flex-wrap items-center gap-2">
        {side === 'at' ? null : (
          <>
            {inDays ? (
              <input
                type="number"
                className="input w-20"
                min={0}
                max={250}
                aria-label={say('workshop:ringDays', of)}
                value={Math.abs(days)}
                onChange={({ target }) =>
                  edit(onSide({ days: Math.min(250, Math.round(Number(target.value) || 0)) }, side))
                }
              />
            ) : (
              <input
                type="number"
                className="input w-20"
                min={0.5}
                step={0.5}
                aria-label={say('workshop:ringHours', of)}
                value={Math.abs(at) / HOUR}
                onChange={({ target }) => edit(onSide({ hours: Math.round(hoursIn(target.value)) || HOUR / 2 }, side))}
              />
            )}
            <select
              className="input w-auto"
              aria-label={say('workshop:ringUnit', of)}
              value={inDays ? 'days' : 'hours'}
              onChange={({ target }) => edit(onSide(target.value === 'days' ? { days: 1 } : { hours: HOUR }, side))}
            >
              <option value="hours">{say('workshop:hoursOfWork')}</option>
              <option value="days">{say('workshop:daysOfWork')}</option>
            </select>
          </>
        )}
        <select
          className="input w-auto"
          aria-label={say('workshop:ringSide', of)}
          value={side}
          onChange={({ target }) => {
            const length = inDays ? { days: Math.abs(days) || 1 } : { hours: Math.abs(at) || HOUR };
            const chosen = target.value;
            edit(
              chosen === 'at' ? { at: 0, days: undefined } : onSide(length, chosen === 'before' ? 'before' : 'after'),
            );
          }}
        >
          <option value="before">{say('workshop:ringAt.before')}</option>
          <option value="at">{say('workshop:ringAt.at')}</option>
          <option value="after">{say('workshop:ringAt.after')}</option>
        </select>
        <button
          type="button"
          className="ml-auto text-[13px] text-green underline"
          aria-label={say('workshop:dropRingOf', of)}
          onClick={() => editing.change((before) => removeRing(before, rule.key, ring.key))}
        >
          {say('workshop:dropRing')}
        </button>
      </div>
      <div className="mt-1.5 flex flex-wrap items-center gap-2">
        <span className="text-soft">{say('workshop:ringTells')}</span>
        <Hearers
          label={say('workshop:addHearerOf', of)}
          nobody={say('workshop:tellsNobody')}
          prompt={say('workshop:addHearer')}
          who={tells}
          set={(next) => edit({ tells: next as readonly Hearer[] })}
        />
      </div>
      <Acts {...{ ring, of, edit }} />
      <label className="mt-1.5 flex flex-wrap items-center gap-2">
        <input
          type="checkbox"
          checked={again !== undefined}
          onChange={(event) => edit({ again: event.target.checked ? 8 * HOUR : undefined })}
        />
        {say('workshop:ringAgain')}
        {again === undefined ? null : (
          <>
            <input
              type="number"
              className="input w-20"
              min={0.5}
              step={0.5}
              aria-label={say('workshop:againHours', of)}
              value={again / HOUR}
              onChange={(event) => edit({ again: Math.round(hoursIn(event.target.value)) || HOUR / 2 })}
            />
            {say('workshop:againUnit')}
          </>
        )}
      </label>
    </li>
  );
}

interface ActsProps {
  readonly ring: Ring;
  readonly of: { readonly place: number; readonly name: string };
  readonly edit: (next: Partial<Omit<Ring, 'key'>>) => void;
}

/** What is done besides telling somebody. */
function Acts({ ring: { does }, of, edit }: ActsProps) {
  const { form, editing } = useBinder();
  const names = useRingNames();
  const { paths } = editing.draft.approval;
  const isThere = new Set(does.map(actWord));
  const groups = [
    {
      label: say('workshop:doesPriority'),
      acts: (['high', 'normal', 'low'] as const).map((to) => ({ do: 'priority', to }) as const),
    },
    {
      label: say('workshop:doesTeam'),
      acts: form.groups.filter(({ isTeam }) => isTeam).map(({ key }) => ({ do: 'team', team: key }) as const),
    },
    {
      label: say('workshop:doesStage'),
      acts: form.stages
        .filter(({ role }) => role !== 'deciding' && role !== 'refused')
        .map(({ key }) => ({ do: 'stage', stage: key }) as const),
    },
    { label: say('workshop:doesDecide'), acts: paths.map(({ id }) => ({ do: 'decide', path: id }) as const) },
  ];
  const inWords = (act: (typeof does)[number]): string => {
    switch (act.do) {
      case 'priority':
        return say(`deadlines:does.${act.to}`);
      case 'team':
        return names.group(act.team);
      case 'stage':
        return names.stage(act.stage);
      case 'decide': {
        const path = paths.find(({ id }) => id === act.path);
        return path ? told(pathName(path)) : say('workshop:pathGone');
      }
    }
  };
  return (
    <div className="mt-1.5 flex flex-wrap items-center gap-2">
      <span className="text-soft">{say('workshop:ringDoes')}</span>
      {does.length === 0 ? <span>{say('workshop:doesNothing')}</span> : null}
      {does.map((act) => {
        const words = `${say(`workshop:doing.${act.do}`)} ${inWords(act)}`;
        return (
          <Chip
            key={actWord(act)}
            words={words}
            dropLabel={say('workshop:dropChip', { what: words })}
            drop={() => edit({ does: does.filter((each) => each !== act) })}
          />
        );
      })}
      <select
        className="input w-auto"
        aria-label={say('workshop:addActOf', of)}
        value=""
        onChange={(event) => edit({ does: [...does, actOf(event.target.value)] })}
      >
        <option value="">{say('workshop:addAct')}</option>
        {groups.map(({ label, acts }) =>
          acts.length === 0 ? null : (
            <optgroup key={label} label={label}>
              {acts.map((act) =>
                isThere.has(actWord(act)) ? null : (
                  <option key={actWord(act)} value={actWord(act)}>
                    {inWords(act)}
                  </option>
                ),
              )}
            </optgroup>
          ),
        )}
      </select>
    </div>
  );
}
