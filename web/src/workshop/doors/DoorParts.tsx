import type { AnswerOf } from '@tolvek/contract';
import type { DoorDesign } from '@tolvek/core/door';
import { say } from '../../wire/words.ts';
import { AudienceFields } from '../access/AudienceFields.tsx';
import { profileScopeOf } from '../access/ruleWords.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { Choose } from '../Setting.tsx';
import { DoorReach } from './DoorReach.tsx';
import { withSet, withWords } from './doorEdits.ts';

/** A part of a door, as it is set on each page that sets it. */
interface PartProps {
  /** What its controls are told apart by. */
  readonly id: string;
  readonly door: DoorDesign;
  readonly set: (change: (before: DoorDesign) => DoorDesign) => void;
}

/** Whom it is for, and how many that means today; rows of a grid of two columns. */
export function DoorAudience({
  id,
  door,
  set,
  opened,
  error,
}: PartProps & {
  readonly opened: AnswerOf<'doorDesign'>;
  /** What the server found. */
  readonly error: unknown;
}) {
  const { form } = useBinder();
  const { data: ground } = workshopApi.useGroundQuery();
  return (
    <>
      <AudienceFields
        {...{ id }}
        audience={door.audience}
        groups={ground?.groups ?? form.groups}
        people={opened.people}
        profile={profileScopeOf(ground)}
        onlyWho
        byRight
        found={error}
        field="audience"
        change={(next) => set((before) => ({ ...before, audience: next(before.audience) }))}
      />
      <span />
      <DoorReach slug={opened.slug} door={door} />
    </>
  );
}

/** What people read who can’t come in, by why. */
export const RefusalTexts = ({ id, door, set }: PartProps) => (
  <>
    <DoorText
      id={`${id}-closed`}
      label={say('workshop:doors.message')}
      placeholder={say('doors:closed')}
      value={door.closedMessage}
      change={(text) => set((before) => ({ ...before, closedMessage: text }))}
    />
    {(['early', 'full', 'others'] as const).map((why) => (
      <DoorText
        key={why}
        id={`${id}-${why}`}
        label={say(`workshop:doors.says.${why}`)}
        placeholder={say(`workshop:doors.usual.${why}`)}
        value={door.says?.[why] ?? ''}
        change={(text) => set((before) => withWords(before, why, text))}
      />
    ))}
  </>
);

/** The door to go to for those who can’t come in. */
export const OtherDoor = ({
  id,
  door,
  set,
  others,
}: PartProps & { readonly others: AnswerOf<'doorDesign'>['others'] }) => (
  <select
    id={id}
    className="input w-auto max-w-full"
    value={door.instead ?? ''}
    onChange={({ target: { value } }) => set((before) => withSet(before, 'instead', value === '' ? undefined : value))}
  >
    <option value="">{say('workshop:doors.noOther')}</option>
    {others.map(({ slug, name, form }) => (
      <option key={slug} value={slug}>
        {say('workshop:doors.otherDoor', { form, door: name })}
      </option>
    ))}
  </select>
);

/** Until when whoever asked may change their answers, and withdraw. */
export const Afterwards = ({ id, door, set }: PartProps) => (
  <>
    <Choose
      id={`${id}-changes`}
      label={say('workshop:doors.changesUntil')}
      none={say('workshop:doors.changes.plan')}
      options={(['worked-on', 'finished', 'never'] as const).map((key) => ({
        key,
        label: say(`workshop:doors.changes.${key}`),
      }))}
      value={door.changes}
      choose={(changes) => set((before) => withSet(before, 'changes', changes))}
    />
    <Choose
      id={`${id}-withdraws`}
      label={say('workshop:doors.withdrawsUntil')}
      none={say('workshop:doors.changes.never')}
      options={(['worked-on', 'finished'] as const).map((key) => ({
        key,
        label: say(`workshop:doors.changes.${key}`),
      }))}
      value={door.withdraws}
      choose={(withdraws) => set((before) => withSet(before, 'withdraws', withdraws))}
    />
  </>
);

/** What they have to prove to follow it. */
export const Follows = ({ id, door, set }: PartProps) => (
  <Choose
    id={`${id}-follows`}
    label={say('workshop:doors.follows')}
    none={say('workshop:doors.follows.link')}
    options={(['device', 'each-time'] as const).map((key) => ({ key, label: say(`workshop:doors.follows.${key}`) }))}
    value={door.follows}
    choose={(follows) => set((before) => withSet(before, 'follows', follows))}
  />
);

interface DoorTextProps {
  readonly id: string;
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  readonly change: (text: string) => void;
  /** Signs. */
  readonly most?: number;
}

/** Some words of a door. */
export const DoorText = ({ id, label, placeholder, value, change, most = 500 }: DoorTextProps) => (
  <p className="mb-2">
    <label htmlFor={id} className="text-[13px] text-soft">
      {label}
    </label>
    <textarea
      id={id}
      rows={value.length > 68 ? 2 : 1}
      maxLength={most}
      className="input mt-0.5"
      placeholder={placeholder}
      value={value}
      onChange={(event) => change(event.target.value)}
    />
  </p>
);
