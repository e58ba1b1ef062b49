import type { AnswerOf } from '@tolvek/contract';
import { doorInWords } from '@tolvek/core/door';
import { answerSchema, type FormDesign, formFile } from '@tolvek/core/form';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { ChangeList } from './ChangeList.tsx';
import type { Change } from './editing.ts';
import { workshopApi } from './endpoints.ts';

const DOOR_STATES = {
  open: 'workshop:door.open',
  closed: 'workshop:door.closed',
  'not-yet': 'workshop:door.notYet',
} as const;

type DoorSettings = AnswerOf<'form'>['doors'][number];

/** The ways in to the form, its releases, what its draft was, and the form as a file. */
export function DoorsPage() {
  const { form, keeping: editing } = useBinder();
  const nameOf = (key: string): string => form.groups.find((group) => group.key === key)?.name ?? key;
  return (
    <>
      <p className="text-soft">{say('workshop:doors.intro')}</p>
      {form.doors.map((door) => (
        <DoorLine key={door.slug} door={door} says={doorInWords(door.door, nameOf).map(told)} />
      ))}
      <h2 className="section-head mt-8">{say('workshop:releases')}</h2>
      {form.releases.length === 0 ? <p className="py-3 text-soft">{say('workshop:notReleased')}</p> : null}
      <ol>
        {form.releases.map((release, index) => (
          <ReleaseLine
            key={release.number}
            formKey={form.key}
            release={release}
            inForce={index === 0}
            change={editing.change}
          />
        ))}
      </ol>
      <DraftHistory formKey={form.key} change={editing.change} />
      <TakeAlong form={form} draft={editing.draft} />
    </>
  );
}

function ReleaseLine({
  formKey,
  release,
  inForce,
  change,
}: {
  formKey: string;
  release: AnswerOf<'form'>['releases'][number];
  inForce: boolean;
  change: Change;
}) {
  const [load, { data, isFetching }] = workshopApi.useLazyCompareReleaseQuery();
  return (
    <li className="border-b border-rule py-2">
      <div className="grid grid-cols-[7rem_1fr_auto] gap-3">
        <span>
          {say('workshop:releaseNo', { number: release.number })}
          {inForce ? <span className="block text-[12.5px] text-green">{say('workshop:inForce')}</span> : null}
        </span>
        <span>
          {release.note || <span className="text-soft">{say('workshop:noNote')}</span>}
          <button
            type="button"
            className="ml-3 text-green underline"
            disabled={isFetching}
            onClick={() => void load({ key: formKey, number: release.number })}
          >
            {say('workshop:compare')}
          </button>
        </span>
        <span className="text-soft">
          {release.by}, <DeskMoment at={release.at} show="day" />
        </span>
      </div>
      {data ? (
        <div className="mt-2 border-l-2 border-green pl-3">
          {data.changes.length === 0 ? (
            <p className="text-soft">{say('workshop:draftSame')}</p>
          ) : (
            <p className="text-soft">{say('workshop:draftDiffers')}</p>
          )}
          <ChangeList changes={data.changes} />
          {data.changes.length > 0 ? (
            <p className="mt-2 flex items-center gap-3">
              <Button
                onClick={() => {
                  change(() => data.design);
                  toast(say('workshop:draftIsAgain', { number: release.number }));
                }}
              >
                {say('workshop:backToRelease', { number: release.number })}
              </Button>
            </p>
          ) : null}
        </div>
      ) : null}
    </li>
  );
}

/** What the draft was, one state for each stretch of work. */
function DraftHistory({ formKey, change }: { formKey: string; change: Change }) {
  const { data } = workshopApi.useDraftHistoryQuery({ key: formKey }, { refetchOnMountOrArgChange: true });
  const states = data?.states.filter((state) => state.changes.length > 0) ?? [];
  return (
    <>
      <h2 className="section-head mt-8">{say('workshop:draftHistory')}</h2>
      {states.length === 0 ? <p className="py-3 text-soft">{say('workshop:draftHistoryNone')}</p> : null}
      <ol>
        {states.map((state, index) => (
          <li key={state.id} className="border-b border-rule py-2">
            <details>
              <summary className="grid grid-cols-[1fr_auto] gap-3">
                <span>
                  {state.changes.length === 1
                    ? told(state.changes[0]?.words ?? '')
                    : say('workshop:changes', { count: state.changes.length })}
                  {index === 0 ? <span className="ml-2 text-[12.5px] text-green">{say('workshop:newest')}</span> : null}
                </span>
                <span className="text-soft">
                  {state.by}, <DeskMoment at={state.at} />
                </span>
              </summary>
              <ChangeList changes={state.changes} />
              <p className="mt-2">
                <Button onClick={() => change(() => state.design)}>{say('workshop:bringBack')}</Button>
              </p>
            </details>
          </li>
        ))}
      </ol>
    </>
  );
}

/**
 * The form as a file for another installation, and the shape of its answers for another program.
 */
function TakeAlong({ form, draft }: { form: AnswerOf<'form'>; draft: FormDesign }) {
  const save = (name: string, content: unknown): void => {
    const url = URL.createObjectURL(new Blob([JSON.stringify(content, null, 2)], { type: 'application/json' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = name;
    link.click();
    URL.revokeObjectURL(url);
  };
  const calendars = [{ key: draft.deadline.calendar, name: form.calendar.name }];
  return (
    <>
      <h2 className="section-head mt-8">{say('workshop:export')}</h2>
      <p className="mt-2 text-soft">{say('workshop:exportHint')}</p>
      <p className="mt-2 flex gap-2">
        <Button
          onClick={() =>
            save(
              `${form.key}.form.json`,
              formFile(
                draft,
                {
                  groups: form.groups,
                  calendars,
                  vocabularies: form.vocabularies,
                  registers: form.registers,
                },
                { ...form.plan, staysIn: form.staysIn },
              ),
            )
          }
        >
          {say('workshop:downloadForm')}
        </Button>
        <Button onClick={() => save(`${form.key}.answers.schema.json`, answerSchema(draft, told))}>
          {say('workshop:downloadSchema')}
        </Button>
      </p>
    </>
  );
}

/** Whether a door stores nothing about who comes in. It is in force at once. */
function Unnamed({ door }: { door: DoorSettings }) {
  const { data: design } = workshopApi.useDoorDesignQuery({ slug: door.slug });
  const [change, { isLoading }] = workshopApi.useChangeDoorMutation();
  const isOn = door.door.unnamed ?? false;
  const put = async (): Promise<void> => {
    if (!design) return;
    const { unnamed: _, ...named } = design.door;
    const next = isOn ? named : { ...named, unnamed: true as const };
    try {
      await change({ slug: door.slug, version: design.version, body: { door: next, note: '' } }).unwrap();
      toast(say(isOn ? 'workshop:doors.named' : 'workshop:doors.unnamedNow'));
    } catch (error) {
      toast.error(refusalInWords(problemOf(error)));
    }
  };
  return (
    <label className="mt-2 flex items-start gap-2">
      <input
        type="checkbox"
        className="mt-1 accent-green"
        checked={isOn}
        disabled={isLoading || !design}
        onChange={() => void put()}
      />
      <span>
        {say('workshop:doors.unnamed')}
        <span className="block text-[13px] text-soft">{say('workshop:doors.unnamedHint')}</span>
      </span>
    </label>
  );
}

function DoorLine({ door, says }: { door: DoorSettings; says: readonly string[] }) {
  const [setDoor, { isLoading }] = workshopApi.useSetDoorMutation();
  const [message, setMessage] = useState(door.closedMessage);
  const link = `${location.origin}/ask/${door.slug}`;
  const put = async (open: boolean): Promise<void> => {
    try {
      await setDoor({ slug: door.slug, body: { open, closedMessage: message } }).unwrap();
      toast(open ? say('workshop:doors.opened') : say('workshop:doors.closedNow'));
    } catch (error) {
      toast.error(problemOf(error).detail);
    }
  };
  const copy = (): void =>
    void navigator.clipboard.writeText(link).then(
      () => toast(say('workshop:doors.copied')),
      () => toast.error(say('workshop:doors.notCopied')),
    );
  return (
    <section className="mt-5 border-b border-rule pb-4">
      <h2>
        {door.name}{' '}
        <span
          className={`ml-2 font-sans text-[13px] font-normal ${door.state === 'open' ? 'text-green' : 'text-brick'}`}
        >
          {say(DOOR_STATES[door.state])}
        </span>
      </h2>
      <p className="mt-1 text-soft">{says.join(' ')}</p>
      <Unnamed door={door} />
      <p className="mt-2 flex items-center gap-3">
        <code className="font-mono text-[13px]">{link}</code>
        <Button onClick={copy}>{say('workshop:doors.copy')}</Button>
      </p>
      <label htmlFor={`closed-${door.slug}`} className="mt-3 block text-soft">
        {say('workshop:doors.message')}
      </label>
      <textarea
        id={`closed-${door.slug}`}
        rows={2}
        className="input mt-1"
        placeholder={say('workshop:doors.messageHint')}
        value={message}
        onChange={(event) => setMessage(event.target.value)}
      />
      <div className="mt-2 flex gap-2">
        <Button disabled={isLoading} look={door.open ? 'refuse' : 'main'} onClick={() => put(!door.open)}>
          {door.open ? say('workshop:doors.close') : say('workshop:doors.open')}
        </Button>
        {message !== door.closedMessage ? (
          <Button disabled={isLoading} onClick={() => put(door.open)}>
            {say('workshop:doors.saveMessage')}
          </Button>
        ) : null}
      </div>
    </section>
  );
}
