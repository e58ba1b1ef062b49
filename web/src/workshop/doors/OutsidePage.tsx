import type { AnswerOf } from '@tolvek/contract';
import { type DoorDesign, doorInWords, PROVING, saysWhose } from '@tolvek/core/door';
import { allQuestionsOf, partName } from '@tolvek/core/form';
import { OUTSIDE_STEPS, type OutsideStep, outsideFindings } from '@tolvek/core/intake';
import { type ReactNode, useId, useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { CopyButton } from '../CopyButton.tsx';
import { workshopApi } from '../endpoints.ts';
import { PutInForce } from '../PutInForce.tsx';
import { Tick } from '../Setting.tsx';
import { Afterwards, DoorAudience, DoorText, Follows, OtherDoor, RefusalTexts } from './DoorParts.tsx';
import { stepOf, withProof, withSet } from './doorEdits.ts';
import { useDoorNames } from './doorNames.ts';
import { useDoorEditing } from './useDoorEditing.ts';

/** One door for people from outside, set up question by question; another is chosen above where there are several. */
export function OutsidePage() {
  const { form } = useBinder();
  const doors = form.doors.filter(({ kind }) => kind === 'outside');
  const [wanted, setWanted] = useState<string | null>(null);
  const slug = doors.find((door) => door.slug === wanted)?.slug ?? doors[0]?.slug;
  const { data: opened } = workshopApi.useDoorDesignQuery({ slug: slug ?? '' }, { skip: slug === undefined });
  return (
    <>
      <p className="text-soft">
        {say('outside:intro')} <Link to={`/workshop/${form.key}/doors`}>{say('outside:back')}</Link>
      </p>
      {doors.length > 1 ? (
        <p className="mt-3">
          <label htmlFor="outside-door" className="mr-2 text-soft">
            {say('outside:which')}
          </label>
          <select
            id="outside-door"
            className="input w-auto"
            value={slug}
            onChange={(event) => setWanted(event.target.value)}
          >
            {doors.map((door) => (
              <option key={door.slug} value={door.slug}>
                {door.name}
              </option>
            ))}
          </select>
        </p>
      ) : null}
      {slug === undefined ? <FirstDoor form={form.key} made={setWanted} /> : null}
      {opened && opened.slug === slug ? <SetUp key={`${slug} ${opened.version}`} opened={opened} /> : null}
    </>
  );
}

/** Makes the door that there is none of yet. */
function FirstDoor({ form, made }: { form: string; made: (slug: string) => void }) {
  const id = useId();
  const [name, setName] = useState('');
  const [once] = useState(() => crypto.randomUUID());
  const [add, { isLoading, error }] = workshopApi.useAddDoorMutation();
  const make = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const added = await add({ key: form, once, body: { name, proof: 'confirmed-address' } });
    if (!('error' in added)) made(added.data.slug);
  };
  return (
    <form noValidate className="mt-4 max-w-[34rem]" onSubmit={(event) => void make(event)}>
      <p>{say('outside:none')}</p>
      <label htmlFor={`${id}-name`} className="mt-3 block text-soft">
        {say('workshop:doors.name')}
      </label>
      <input
        id={`${id}-name`}
        className="input mt-1"
        maxLength={200}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <WholeTrouble error={error} className="mt-2" />
      <p className="mt-3">
        <Button type="submit" look="main" disabled={isLoading || name.trim() === ''}>
          {say('outside:make')}
        </Button>
      </p>
    </form>
  );
}

type Opened = AnswerOf<'doorDesign'>;

/** The questions in their order, what is found at each, and the one step that puts all of it in force. */
function SetUp({ opened }: { opened: Opened }) {
  const { form, editing } = useBinder();
  const { draft } = editing;
  const { door, set, changes, found: wrong, error, note, setNote, isLoading, save } = useDoorEditing(opened);
  const nameOf = useDoorNames(opened.words);
  const labelOf = (key: string): string => partName(draft, key);
  const cautions = outsideFindings(door, {
    ...{ form: draft, stages: form.publicStages, reads: form.requesterReads, now: Date.parse(form.now) },
    ...{ isReleased: form.releases.length > 0, isStopped: form.stopped },
  });
  const foundAt = (step: OutsideStep): readonly ReactNode[] => [
    ...wrong
      .filter(({ at }) => stepOf(at) === step)
      .map(({ message }) => <Found key={told(message)} is="error" text={told(message)} />),
    ...cautions
      .filter((each) => each.step === step)
      .map(({ message }) => <Found key={told(message)} is="caution" text={told(message)} />),
  ];
  const steps: Readonly<Record<OutsideStep, ReactNode>> = {
    whose: <Whose {...{ door, set }} />,
    who: <Who {...{ door, set, opened, error }} />,
    refused: <Refused {...{ door, set, opened }} />,
    asking: <AskedSo {...{ door, set }} slug={opened.slug} />,
    past: <Past {...{ door, set }} />,
  };
  return (
    <>
      <ol className="mt-5">
        {OUTSIDE_STEPS.map((step, at) => (
          <li key={step} className="grid grid-cols-[2rem_1fr] border-t border-rule py-4">
            <span className="font-serif text-[19px] text-soft">{at + 1}</span>
            <section aria-label={say(`outside:step.${step}`)}>
              <h2 className="text-[19px]">{say(`outside:step.${step}`)}</h2>
              <div className="mt-2.5">{steps[step]}</div>
              {foundAt(step)}
            </section>
          </li>
        ))}
        <li className="grid grid-cols-[2rem_1fr] border-t border-rule py-4">
          <span className="font-serif text-[19px] text-soft">{OUTSIDE_STEPS.length + 1}</span>
          <section aria-label={say('outside:step.check')}>
            <h2 className="text-[19px]">{say('outside:step.check')}</h2>
            <p className="mt-2">{doorInWords(door, nameOf, labelOf).map(told).join(' ')}</p>
            {wrong.length + cautions.length === 0 ? (
              <p className="mt-2 text-green">{say('outside:allWell')}</p>
            ) : (
              <ul className="mt-2 list-disc pl-5">
                {[...wrong.map(({ message }) => told(message)), ...cautions.map(({ message }) => told(message))].map(
                  (text) => (
                    <li key={text}>{text}</li>
                  ),
                )}
              </ul>
            )}
            <p className="mt-2 text-[13px] text-soft">{say('outside:proofHint')}</p>
          </section>
        </li>
      </ol>
      {changes.length > 0 ? (
        <PutInForce
          changes={changes}
          found={wrong}
          {...{ error, note, setNote, isLoading }}
          says={<span className="text-soft">{say('workshop:doors.readersStay')}</span>}
          save={() => void save()}
          undo={() => set(() => opened.door)}
          close={() => set(() => opened.door)}
        />
      ) : null}
    </>
  );
}

const Found = ({ is, text }: { is: 'error' | 'caution'; text: string }) => (
  <p
    role={is === 'error' ? 'alert' : 'note'}
    className={`mt-2.5 border-l-[3px] px-3 py-1.5 ${is === 'error' ? 'border-brick bg-brick-wash' : 'border-brass-mark bg-brass-wash'}`}
  >
    {text}
  </p>
);

interface StepProps {
  readonly door: DoorDesign;
  readonly set: (change: (before: DoorDesign) => DoorDesign) => void;
}

function Whose({ door, set }: StepProps) {
  const id = useId();
  const { draft } = useBinder().editing;
  const fields = draft.fields.filter(saysWhose);
  if (fields.length === 0 && door.whose === undefined)
    return <p className="text-soft">{say('outside:noWhoseField')}</p>;
  const isAddress = (key: string | undefined): boolean =>
    fields.find((field) => field.key === key)?.type.kind === 'email';
  const said = (key: string): string =>
    say(isAddress(key) ? 'outside:whose.address' : 'outside:whose.person', {
      field: partName(draft, key),
    });
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="sr-only">{say('outside:step.whose')}</legend>
      {[
        undefined,
        ...new Set([...fields.map(({ key }) => key), ...(door.whose === undefined ? [] : [door.whose])]),
      ].map((key) => (
        <label key={key ?? ''} className="flex items-center gap-2">
          <input
            type="radio"
            name={id}
            className="accent-green"
            checked={door.whose === key}
            onChange={() => set((before) => withSet(before, 'whose', key))}
          />
          {key === undefined ? say('outside:whose.asks') : said(key)}
        </label>
      ))}
      <span className="text-[13px] text-soft">
        {say('outside:whoseHint')} {isAddress(door.whose) ? say('outside:whoseFromOutside') : ''}
      </span>
    </fieldset>
  );
}

function Who({ door, set, opened, error }: StepProps & { opened: Opened; error: unknown }) {
  const id = useId();
  const isOpenToRobots = door.unnamed || door.proves === 'never' || door.slowsRobots;
  const proof = door.unnamed ? 'unnamed' : (door.proves ?? 'device');
  return (
    <div className="grid grid-cols-[7.5rem_1fr] items-start gap-x-4 gap-y-3">
      <DoorAudience {...{ id, door, set, opened, error }} />
      <span />
      <fieldset className="flex flex-col gap-1.5">
        <legend className="sr-only">{say('outside:step.who')}</legend>
        {(['device', ...PROVING, 'unnamed'] as const).map((each) => (
          <label key={each} className="flex items-start gap-2">
            <input
              type="radio"
              name={id}
              className="mt-1 accent-green"
              checked={proof === each}
              onChange={() => set((before) => withProof(before, each))}
            />
            {say(`outside:proof.${each}`)}
          </label>
        ))}
        {isOpenToRobots ? (
          <span className="mt-1">
            <Tick
              label={say('outside:robotsOn')}
              hint={say('workshop:doors.slowRobotsHint')}
              isOn={door.slowsRobots ?? false}
              put={(isOn) => set((before) => withSet(before, 'slowsRobots', isOn || undefined))}
            />
          </span>
        ) : null}
        <span className="mt-1 text-[13px] text-soft">{say('outside:inactive')}</span>
      </fieldset>
    </div>
  );
}

function Refused({ door, set, opened }: StepProps & { opened: Opened }) {
  const id = useId();
  return (
    <>
      <RefusalTexts {...{ id, door, set }} />
      <label htmlFor={`${id}-instead`} className="mt-1 mb-0.5 block text-[13px] text-soft">
        {say('workshop:doors.instead')}
      </label>
      <OtherDoor id={`${id}-instead`} {...{ door, set }} others={opened.others} />
    </>
  );
}

function AskedSo({ door, set, slug }: StepProps & { slug: string }) {
  const id = useId();
  const { form, editing } = useBinder();
  const link = `${location.origin}/ask/${slug}`;
  const worded = allQuestionsOf(editing.draft).filter(({ asks }) => asks.trim() !== '').length;
  return (
    <div className="flex flex-col gap-3">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="text-soft">{say('outside:link')}</span>
        <code className="font-mono text-[13px] break-all">{link}</code>
        <CopyButton text={link} label={say('workshop:doors.copy')} />
      </p>
      <p>
        <span className="text-soft">{say('outside:asked')}</span> {editing.draft.title}.{' '}
        {say('outside:askedCount', { count: worded })}{' '}
        <Link to={`/workshop/${form.key}/questions`}>{say('outside:toQuestions')}</Link>
      </p>
      <DoorText
        id={`${id}-confirmation`}
        label={say('workshop:doors.confirmation')}
        placeholder=""
        most={2_000}
        value={door.confirmation ?? ''}
        change={(text) => set((before) => withSet(before, 'confirmation', text === '' ? undefined : text))}
      />
    </div>
  );
}

function Past({ door, set }: StepProps) {
  const id = useId();
  const { form } = useBinder();
  const reads = form.requesterReads;
  if (door.unnamed) return null;
  return (
    <div className="flex flex-col gap-3">
      <p>{say('outside:past')}</p>
      <span className="flex flex-wrap gap-x-5 gap-y-2">
        <Follows {...{ id, door, set }} />
        <Afterwards {...{ id, door, set }} />
      </span>
      <p>
        {say('outside:pastNamed', { stages: [...new Set(form.publicStages.map(({ publicLabel }) => publicLabel))] })}{' '}
        <Link to={`/workshop/registers/${form.register.key}`}>{say('outside:toStages')}</Link>
      </p>
      <p>
        {(['answers', 'made', 'staffOnly'] as const)
          .map((what) => say(`outside:reads.${what}.${reads[what]}`))
          .join(' ')}{' '}
        {say('outside:readsRules')} <Link to={`/workshop/${form.key}/access`}>{say('outside:toAccess')}</Link>
      </p>
    </div>
  );
}
