import { fieldsAsked, OWN_REQUESTS, type Updates } from '@tolvek/core/form';
import { Boxes } from '../ui/Boxes.tsx';
import { say } from '../wire/words.ts';
import type { Editing } from './editing.ts';
import { Choose, Tick } from './Setting.tsx';

const NEW: Updates = { whose: OWN_REQUESTS, by: [], none: 'add' };

/** What an answer does: whether it adds, or changes what the person has there already. */
export function UpdatesEditor({ editing: { draft, change } }: { editing: Editing }) {
  const { updates, fields } = draft;
  const put = (next: Updates | undefined): void =>
    change(({ updates: _, ...before }) => (next ? { ...before, updates: next } : before));
  return (
    <section id="at-updates">
      <h2 className="section-head mt-6 font-sans text-[12px] font-semibold">{say('workshop:updates')}</h2>
      <fieldset className="py-2">
        <legend className="sr-only">{say('workshop:updates')}</legend>
        {[false, true].map((is) => (
          <label key={String(is)} className="mt-1 flex min-h-7 items-center gap-2">
            <input
              type="radio"
              name="updates"
              className="accent-green"
              checked={(updates !== undefined) === is}
              onChange={() => put(is ? NEW : undefined)}
            />
            {say(is ? 'workshop:updatesChange' : 'workshop:updatesAdd')}
          </label>
        ))}
      </fieldset>
      {updates ? <Which updates={updates} fields={fields} parts={draft.parts} put={put} /> : null}
    </section>
  );
}

function Which({
  updates,
  fields,
  parts,
  put,
}: {
  updates: Updates;
  fields: Editing['draft']['fields'];
  parts: Editing['draft']['parts'];
  put: (next: Updates) => void;
}) {
  const { whose, by, none, beside, waits, stamps } = updates;
  const labelled = ({ key, label }: (typeof fields)[number]) => ({ key, label });
  const asked = fieldsAsked(parts);
  const people = fields.filter(({ type }) => type.kind === 'person').map(labelled);
  const dates = fields.filter(({ type, source }) => type.kind === 'date' && source === 'desk-only').map(labelled);
  const findable = fields.filter(({ key, type }) => asked.has(key) && key !== whose && type.kind !== 'line-items');
  const toggled = (key: string): readonly string[] =>
    by.includes(key) ? by.filter((each) => each !== key) : [...by, key];
  // What is not said is not there.
  const set = ({ beside: more, waits: later, stamps: day, ...next }: Updates): void =>
    put({
      ...next,
      ...(more ? { beside: more } : {}),
      ...(later ? { waits: later } : {}),
      ...(day ? { stamps: day } : {}),
    });
  return (
    <div className="flex flex-col gap-3 border-l-2 border-green pl-3.5">
      <Choose
        id="updates-whose"
        label={say('workshop:updatesWhose')}
        none={say('workshop:updatesOwn')}
        options={people}
        value={whose === OWN_REQUESTS ? undefined : whose}
        choose={(key) => set({ ...updates, whose: key ?? OWN_REQUESTS })}
      />
      <div>
        <p className="text-[13px] text-soft">{say('workshop:updatesBy')}</p>
        <Boxes all={findable.map(labelled)} chosen={by} toggle={(key) => set({ ...updates, by: toggled(key) })} />
      </div>
      <Tick
        label={say('workshop:updatesNone')}
        hint={say('workshop:updatesNoneHint')}
        isOn={none === 'add'}
        put={(is) => set({ ...updates, none: is ? 'add' : 'refuse' })}
      />
      <Tick
        label={say('workshop:updatesBeside')}
        hint={say('workshop:updatesBesideHint')}
        isOn={beside ?? false}
        put={(is) => set({ ...updates, beside: is || undefined })}
      />
      <Tick
        label={say('workshop:updatesWaits')}
        hint={say('workshop:updatesWaitsHint')}
        isOn={waits ?? false}
        put={(is) => set({ ...updates, waits: is || undefined })}
      />
      <Choose
        id="updates-stamps"
        label={say('workshop:updatesStamps')}
        none={say('workshop:updatesNoStamp')}
        options={dates}
        value={stamps}
        choose={(key) => set({ ...updates, stamps: key })}
      />
    </div>
  );
}
