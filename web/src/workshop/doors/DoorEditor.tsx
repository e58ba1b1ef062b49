import type { AnswerOf } from '@tolvek/contract';
import { translated } from '@tolvek/core/design';
import {
  AGAIN,
  type Again,
  canComeByLink,
  doorInWords,
  linkEnding,
  PROVING,
  saysWhose,
  textsOfDoor,
} from '@tolvek/core/door';
import { allQuestionsOf, partName } from '@tolvek/core/form';
import { useId } from 'react';
import { Boxes } from '../../ui/Boxes.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { say, told } from '../../wire/words.ts';
import { toggled } from '../access/planEdits.ts';
import { useBinder } from '../binder.ts';
import { WhatWasSet } from '../groundwork/States.tsx';
import { InOthers } from '../languages/InOthers.tsx';
import { PutInForce } from '../PutInForce.tsx';
import { Choose, Hint, Tick } from '../Setting.tsx';
import { Afterwards, DoorAudience, Follows, OtherDoor, RefusalTexts } from './DoorParts.tsx';
import { DoorTimes } from './DoorTimes.tsx';
import { withSet } from './doorEdits.ts';
import { useDoorNames } from './doorNames.ts';
import { Limits } from './Limits.tsx';
import { useDoorEditing } from './useDoorEditing.ts';
import { Waiting } from './Waiting.tsx';

type Opened = AnswerOf<'doorDesign'>;

/** What is not set where nothing is typed. */
const typedOrNone = (text: string): string | undefined => (text === '' ? undefined : text);

interface DoorEditorProps {
  readonly opened: Opened;
  readonly close: () => void;
}

/** All that is set of a door, looked at in words before it is put in force in one step. */
export function DoorEditor({ opened, close }: DoorEditorProps) {
  const id = useId();
  const { editing } = useBinder();
  const { door, set, changes, found, error, note, setNote, isLoading, save } = useDoorEditing(opened);
  const isOutside = door.proof !== 'sign-in';
  const nameOf = useDoorNames(opened.words);
  const asked = new Set(allQuestionsOf(editing.draft).map(({ field }) => field));
  const labelOf = (key: string): string => partName(editing.draft, key);
  const owners = editing.draft.fields.filter(saysWhose);
  const byLink = editing.draft.fields.filter((field) => asked.has(field.key) && canComeByLink(field));
  const link = `${location.origin}/ask/${opened.slug}`;
  return (
    <div className="mt-4 border-l-2 border-green pl-4">
      <div className="grid grid-cols-[9rem_1fr] items-start gap-x-4 gap-y-3 [&_input]:scroll-mb-44 [&_select]:scroll-mb-44 [&_textarea]:scroll-mb-44">
        <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
          {say('workshop:doors.name')}
        </label>
        <span>
          <input
            id={`${id}-name`}
            className="input"
            maxLength={200}
            value={door.name}
            onChange={({ target: { value } }) => set((before) => ({ ...before, name: value }))}
          />
          <Hint>{say('workshop:doors.nameHint')}</Hint>
        </span>
        <DoorAudience {...{ id, door, set, opened, error }} />
        <span />
        <Tick
          label={say('workshop:doors.unnamed')}
          hint={say('workshop:doors.unnamedHint')}
          isOn={door.unnamed ?? false}
          put={(isOn) => set((before) => withSet(before, 'unnamed', isOn || undefined))}
        />
        <span />
        <Tick
          label={say('workshop:doors.onlySent')}
          hint={say('workshop:doors.onlySentHint')}
          isOn={door.onlySent ?? false}
          put={(isOn) => set((before) => withSet(before, 'onlySent', isOn || undefined))}
        />
        <DoorTimes {...{ id, door, set }} />
        <span className="pt-1 text-soft">{say('workshop:doors.limits')}</span>
        <Limits {...{ door, set }} used={opened.used} />
        <Waiting {...{ door, set }} line={opened.line} />
        <span className="pt-1.5 text-soft">{say('workshop:doors.words')}</span>
        <fieldset>
          <legend className="sr-only">{say('workshop:doors.words')}</legend>
          <RefusalTexts {...{ id, door, set }} />
        </fieldset>
        <label htmlFor={`${id}-instead`} className="pt-1.5 text-soft">
          {say('workshop:doors.instead')}
        </label>
        <span>
          <OtherDoor id={`${id}-instead`} {...{ door, set }} others={opened.others} />
          <Hint>{say('workshop:doors.insteadHint')}</Hint>
          <ProblemsAt error={error} field="instead" />
        </span>
        <label htmlFor={`${id}-confirmation`} className="pt-1.5 text-soft">
          {say('workshop:doors.confirmation')}
        </label>
        <span>
          <textarea
            id={`${id}-confirmation`}
            rows={3}
            maxLength={2_000}
            className="input"
            value={door.confirmation ?? ''}
            onChange={({ target: { value } }) => set((before) => withSet(before, 'confirmation', typedOrNone(value)))}
          />
          <Hint>{say('workshop:doors.confirmationHint', { example: `{${byLink[0]?.key ?? 'field'}}` })}</Hint>
          <ProblemsAt error={error} field="confirmation" />
        </span>
        <label htmlFor={`${id}-consent`} className="pt-1.5 text-soft">
          {say('workshop:doors.consent')}
        </label>
        <span>
          <textarea
            id={`${id}-consent`}
            rows={3}
            maxLength={5_000}
            className="input"
            value={door.consent?.text ?? ''}
            onChange={({ target: { value } }) =>
              set((before) =>
                withSet(
                  before,
                  'consent',
                  value === '' ? undefined : { text: value, version: before.consent?.version ?? 0 },
                ),
              )
            }
          />
          <Hint>
            {opened.door.consent
              ? say('workshop:doors.consentVersion', { number: opened.door.consent.version })
              : say('workshop:doors.consentHint')}
          </Hint>
        </span>
        <span className="col-start-2">
          <InOthers
            texts={textsOfDoor(door)}
            found={({ place }, language) => door.translations?.[language]?.[place]}
            put={(text, language, says) =>
              set((before) => ({ ...before, translations: translated(before.translations, language, text, says) }))
            }
          />
        </span>
        <span className="pt-1.5 text-soft">{say('workshop:doors.afterwards')}</span>
        <fieldset className="flex flex-wrap gap-x-5 gap-y-2">
          <legend className="sr-only">{say('workshop:doors.afterwards')}</legend>
          <Afterwards {...{ id, door, set }} />
          {owners.length > 0 || door.whose !== undefined ? (
            <span className="basis-full">
              <Choose
                id={`${id}-whose`}
                label={say('outside:step.whose')}
                none={say('outside:whose.asks')}
                options={[
                  ...new Set([...owners.map(({ key }) => key), ...(door.whose === undefined ? [] : [door.whose])]),
                ].map((key) => ({ key, label: labelOf(key) }))}
                value={door.whose}
                choose={(whose) => set((before) => withSet(before, 'whose', whose))}
              />
              <ProblemsAt error={error} field="whose" />
            </span>
          ) : null}
          {door.changes === 'never' ? null : (
            <span className="basis-full">
              <span className="block text-[13px] text-soft">{say('workshop:doors.again')}</span>
              <Boxes
                all={AGAIN.map((key) => ({ key, label: say(`workshop:doors.again.${key}`) }))}
                chosen={door.again ?? []}
                toggle={(key) =>
                  set((before) => {
                    const again = toggled(before.again ?? [], key) as readonly Again[];
                    return withSet(before, 'again', again.length === 0 ? undefined : again);
                  })
                }
              />
              <Hint>{say('workshop:doors.againHint')}</Hint>
            </span>
          )}
          {isOutside && !door.unnamed ? (
            <Choose
              id={`${id}-proves`}
              label={say('workshop:doors.proves')}
              none={say('workshop:doors.proves.device')}
              options={PROVING.map((key) => ({ key, label: say(`workshop:doors.proves.${key}`) }))}
              value={door.proves}
              choose={(proves) => set((before) => withSet(before, 'proves', proves))}
            />
          ) : null}
          {isOutside && !door.unnamed ? <Follows {...{ id, door, set }} /> : null}
          {door.withdraws ? <Hint>{say('workshop:doors.withdrawHint')}</Hint> : null}
        </fieldset>
        {isOutside ? (
          <>
            <label htmlFor={`${id}-embeds`} className="pt-1.5 text-soft">
              {say('workshop:doors.embeds')}
            </label>
            <span>
              <textarea
                id={`${id}-embeds`}
                className="input"
                rows={2}
                value={(door.embeds ?? []).join('\n')}
                onChange={({ target: { value } }) =>
                  set((before) => withSet(before, 'embeds', value === '' ? undefined : value.split('\n')))
                }
              />
              <Hint>{say('workshop:doors.embedsHint')}</Hint>
              <ProblemsAt error={error} field="embeds" />
            </span>
          </>
        ) : null}
        {byLink.length > 0 ? (
          <>
            <span className="pt-1 text-soft">{say('workshop:doors.prefills')}</span>
            <fieldset>
              <legend className="sr-only">{say('workshop:doors.prefills')}</legend>
              <Boxes
                all={byLink.map(({ key, label }) => ({ key, label }))}
                chosen={door.prefills ?? []}
                toggle={(key) =>
                  set((before) => {
                    const prefills = toggled(before.prefills ?? [], key);
                    return withSet(before, 'prefills', prefills.length === 0 ? undefined : prefills);
                  })
                }
              />
              {door.prefills ? (
                <Hint>
                  {say('workshop:doors.prefillsHint')}{' '}
                  <code className="font-mono break-all">
                    {`${link}${linkEnding({ [door.prefills[0] ?? '']: 'x' }).replace(/x$/, '…')}`}
                  </code>
                </Hint>
              ) : null}
              <ProblemsAt error={error} field="prefills" />
            </fieldset>
          </>
        ) : null}
        {isOutside ? (
          <>
            <span className="pt-1 text-soft">{say('workshop:doors.robots')}</span>
            <Tick
              label={say('workshop:doors.slowRobots')}
              hint={say('workshop:doors.slowRobotsHint')}
              isOn={door.slowsRobots ?? false}
              put={(isOn) => set((before) => withSet(before, 'slowsRobots', isOn || undefined))}
            />
          </>
        ) : null}
      </div>
      <PutInForce
        {...{ changes, found, error, note, setNote, isLoading, close }}
        says={
          <>
            {doorInWords(door, nameOf, labelOf).map(told).join(' ')}{' '}
            <span className="text-soft">{say('workshop:doors.readersStay')}</span>
          </>
        }
        save={() => void save().then((isSaved) => isSaved && close())}
        undo={() => {
          set(() => opened.door);
          close();
        }}
      />
      {opened.states.length > 1 ? <WhatWasSet states={opened.states} back={(state) => set(() => state.door)} /> : null}
    </div>
  );
}
