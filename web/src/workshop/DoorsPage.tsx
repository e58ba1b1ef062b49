import type { AnswerOf } from '@tolvek/contract';
import { answerSchema, type FormDesign, formFile } from '@tolvek/core/form';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { saveFile } from '../ui/saveFile.ts';
import { DeskMoment } from '../wire/DeskMoment.tsx';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { ChangeList } from './ChangeList.tsx';
import { AddDoor } from './doors/AddDoor.tsx';
import { DoorCard } from './doors/DoorCard.tsx';
import type { Change } from './editing.ts';
import { workshopApi } from './endpoints.ts';

/** The ways in to the form, its releases, what its draft was, and the form as a file. */
export function DoorsPage() {
  const { form, keeping: editing } = useBinder();
  return (
    <>
      <p className="text-soft">{say('workshop:doors.intro')}</p>
      <p className="mt-2">
        <Link to={`/workshop/${form.key}/outside`}>{say('outside:open')}</Link>
      </p>
      {form.doors.map((door) => (
        <DoorCard key={door.slug} door={door} />
      ))}
      {form.doors.length === 0 ? <p className="mt-4 text-soft">{say('workshop:doors.none')}</p> : null}
      <AddDoor form={form.key} />
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
  const save = (name: string, content: unknown): void =>
    saveFile(name, 'application/json', JSON.stringify(content, null, 2));
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
