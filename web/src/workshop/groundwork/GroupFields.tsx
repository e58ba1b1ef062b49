import { TextLine } from '../../ui/TextLine.tsx';
import { say } from '../../wire/words.ts';

export interface GroupDraft {
  readonly name: string;
  readonly about: string;
  readonly isTeam: boolean;
  /** Left out where it is not set here. */
  readonly mailbox?: string;
}

interface GroupFieldsProps {
  readonly id: string;
  readonly group: GroupDraft;
  readonly set: (group: GroupDraft) => void;
  readonly error: unknown;
  /** Whether it is said what they are for. */
  readonly explained?: boolean;
  /** Whether its name is changed elsewhere. */
  readonly isKept?: boolean;
}

/** What is set of a group: what it is called and is for, and whether it works on requests. */
export const GroupFields = ({ id, group, set, error, explained = false, isKept = false }: GroupFieldsProps) => (
  <>
    <TextLine
      id={`${id}-group`}
      label={say('ground:set.name')}
      error={error}
      field="name"
      disabled={isKept}
      value={group.name}
      change={(name) => set({ ...group, name })}
    />
    <TextLine
      id={`${id}-about`}
      label={say('ground:set.about')}
      {...(explained ? { hint: say('ground:aboutHint') } : {})}
      error={error}
      field="about"
      value={group.about}
      change={(about) => set({ ...group, about })}
    />
    {group.mailbox === undefined ? null : (
      <TextLine
        id={`${id}-mailbox`}
        label={say('ground:set.mailbox')}
        hint={say('ground:mailboxHint')}
        error={error}
        field="mailbox"
        value={group.mailbox}
        change={(mailbox) => set({ ...group, mailbox })}
      />
    )}
    <label className="mt-4 flex items-baseline gap-2">
      <input
        type="checkbox"
        className="accent-green"
        checked={group.isTeam}
        onChange={(event) => set({ ...group, isTeam: event.target.checked })}
      />
      <span>
        {say('ground:worksRequests')}
        {explained ? <span className="block text-soft">{say('ground:teamHint')}</span> : null}
      </span>
    </label>
  </>
);
