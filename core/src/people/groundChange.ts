import { type Said, said, type Words } from '@tolvek/words';
import { absenceInWords } from './absence.ts';
import { type Audience, audienceInWords } from './audience.ts';
import { type Right, rightInWords } from './rights.ts';
import type { RegisterRights } from './rightsAt.ts';

/** What can be set of a person or a group, one by one. */
export type GroundField = 'name' | 'email' | 'language' | 'active' | 'about' | 'mailbox' | 'isTeam' | 'retired';

/** Who comes into a group, or no longer is in it: people by id, groups by key. */
export type GroundMember = { readonly person: string } | { readonly group: string };

/** What somebody set of a person or a group, as data. Days are ISO 8601; null for no beginning, and for no end. */
export type GroundChange =
  | { readonly kind: 'added' | 'removed' }
  | { readonly kind: 'changed'; readonly field: GroundField; readonly before: string; readonly after: string }
  | { readonly kind: 'invited' }
  /** Everywhere, or out of one session: by its browser, empty where that is unknown. */
  | { readonly kind: 'signed-out'; readonly browser?: string }
  /** Another record of the same person became a part of this one, by the name and address it had. */
  | { readonly kind: 'merged'; readonly name: string; readonly email: string }
  /** Why another line was, by its id, in the words of whoever set it. */
  | { readonly kind: 'why'; readonly of: string; readonly text: string }
  /** At the desk, or in one register, by its id: with what that said of it before, where it said anything. */
  | { readonly kind: 'given' | 'taken'; readonly right: Right; readonly register?: string; readonly was?: boolean }
  /** What the desk gives counts for nothing in a register from then on, or counts again. */
  | { readonly kind: 'apart'; readonly register: string; readonly on: boolean }
  /** A register is as the desk again, or differs again: with all in which it does. */
  | ({ readonly kind: 'put-back' | 'differing' } & RegisterRights)
  /** They are away on some days, or no longer: with who takes their place, if anybody does. */
  | {
      readonly kind: 'away' | 'back';
      readonly from: string;
      readonly until: string | null;
      readonly substitute: string | null;
    }
  /** A field of the profile was set; null where there was nothing, or nothing is left. */
  | { readonly kind: 'profile'; readonly field: string; readonly before: unknown; readonly after: unknown }
  /** A provider that proves who somebody is knows them from now on, by its name. */
  | { readonly kind: 'linked'; readonly provider: string }
  /** Somebody is asked for a code after their password from now on, or no longer. */
  | { readonly kind: 'code'; readonly on: boolean }
  /** Of the desk: a token of a directory was made or ended, a provider came or is another, passwords and logo. */
  | { readonly kind: 'token'; readonly name: string; readonly on: boolean }
  /** A key of a program was made or ended; or it got another secret. */
  | { readonly kind: 'key'; readonly program: string; readonly name: string; readonly on: boolean }
  | { readonly kind: 'secret'; readonly program: string }
  | { readonly kind: 'provider'; readonly name: string; readonly did: 'added' | 'changed' | 'on' | 'off' }
  | { readonly kind: 'deleted'; readonly what: 'calendar' | 'roster' | 'vocabulary'; readonly name: string }
  | { readonly kind: 'passwords' | 'logo'; readonly on: boolean }
  /** A portrait came or went. */
  | { readonly kind: 'portrait'; readonly on: boolean }
  /** A key of a device came or went, by what its owner calls it; all of them where there is no name. */
  | { readonly kind: 'passkey'; readonly name: string; readonly on: boolean }
  /** A password of one’s own was chosen; `again`: in place of another. */
  | { readonly kind: 'password'; readonly again: boolean }
  | {
      readonly kind: 'entered' | 'left';
      readonly group: string;
      readonly member: GroundMember;
      readonly from: string | null;
      readonly until: string | null;
      /** A rule let them in, or no longer does. */
      readonly byRule?: true;
    }
  /** Who is in a group by rule is said anew; null for nobody. */
  | { readonly kind: 'ruled'; readonly before: Audience | null; readonly after: Audience | null };

/** What names are shown for: of groups by key, of people and registers by id. */
export interface GroundNames {
  readonly group: (key: string) => string;
  readonly person: (id: string) => string;
  readonly register: (id: string) => string;
  /** What a field of profiles is called, and what stands in it. */
  readonly field: (key: string) => Words;
  readonly value: (key: string, value: unknown) => Words;
  /** A condition on profiles, as a sentence. */
  readonly condition: (text: string) => Words;
}

/** What is shown for a value that was set. */
function valueInWords(field: GroundField, value: string): Words {
  if (value === '') return said('ground:set.nothing');
  if (field === 'language') return said(`ground:reads.${value as 'en' | 'de'}`);
  return value;
}

/** A change in a sentence, with names as they are now: “Name: from “Nuala Fen” to “Nuala Fenwick””. */
export function groundChangeInWords(change: GroundChange, names: GroundNames): Words {
  switch (change.kind) {
    case 'added':
      return said('ground:did.added');
    case 'removed':
      return said('ground:did.removed');
    case 'given':
    case 'taken': {
      const right = rightInWords(change.right);
      if (change.register === undefined) return said(`ground:did.${change.kind}`, { right });
      return said(`ground:did.${change.kind}In`, { right, register: names.register(change.register) });
    }
    case 'apart':
      return said(change.on ? 'ground:did.apart' : 'ground:did.apartOff', {
        register: names.register(change.register),
      });
    case 'why':
      return change.text;
    case 'put-back':
      return said('ground:did.putBack', { register: names.register(change.register) });
    case 'differing':
      return said('ground:did.differing', { register: names.register(change.register) });
    case 'signed-out':
      if (change.browser === undefined) return said('ground:did.signedOut');
      return change.browser === ''
        ? said('ground:did.signedOutOnce')
        : said('ground:did.signedOutOf', { browser: change.browser });
    case 'merged':
      return said('ground:did.merged', { name: change.name, email: change.email });
    case 'invited':
      return said('ground:did.invited');
    case 'away':
    case 'back': {
      const { from, until, substitute } = change;
      const given = {
        days: absenceInWords({ from, until }),
        name: substitute === null ? '' : names.person(substitute),
      };
      if (change.kind === 'back') return said('ground:did.back', given);
      return said(substitute === null ? 'ground:did.away' : 'ground:did.awayFor', given);
    }
    case 'profile': {
      const shown = (value: unknown): Words =>
        value === null ? said('ground:set.nothing') : names.value(change.field, value);
      return said('ground:did.changed', {
        what: names.field(change.field),
        before: shown(change.before),
        after: shown(change.after),
      });
    }
    case 'linked':
      return said('ground:did.linked', { provider: change.provider });
    case 'code':
      return said(change.on ? 'ground:did.codeOn' : 'ground:did.codeOff');
    case 'token':
      return said(change.on ? 'ground:did.token' : 'ground:did.tokenEnded', { name: change.name });
    case 'key': {
      const { program, name } = change;
      return said(change.on ? 'ground:did.key' : 'ground:did.keyEnded', { program, name });
    }
    case 'secret':
      return said('ground:did.secret', { program: change.program });
    case 'provider':
      return said(`ground:did.provider.${change.did}`, { name: change.name });
    case 'deleted':
      return said(`ground:did.deleted.${change.what}`, { name: change.name });
    case 'passwords':
      return said(change.on ? 'ground:did.passwordsOn' : 'ground:did.passwordsOff');
    case 'logo':
      return said(change.on ? 'ground:did.logo' : 'ground:did.logoOff');
    case 'portrait':
      return said(change.on ? 'ground:did.portrait' : 'ground:did.portraitOff');
    case 'passkey':
      if (change.name === '') return said('ground:did.passkeysOff');
      return said(change.on ? 'ground:did.passkeyOn' : 'ground:did.passkeyOff', { name: change.name });
    case 'password':
      return said(change.again ? 'ground:did.passwordAgain' : 'ground:did.password');
    case 'changed':
      return changedInWords(change);
    case 'entered':
    case 'left': {
      const member = 'person' in change.member ? names.person(change.member.person) : names.group(change.member.group);
      const given = { member, group: names.group(change.group), days: daysInWords(change) };
      if (change.byRule) return said(`ground:did.${change.kind}ByRule`, given);
      return said(change.kind === 'entered' ? 'ground:did.entered' : 'ground:did.left', given);
    }
    case 'ruled':
      if (change.after === null) return said('ground:did.unruled');
      return said('ground:did.ruled', { who: ruleInWords(change.after, names) });
  }
}

/** Whom the rule of a group means, as a sentence. */
export const ruleInWords = (rule: Audience, names: Pick<GroundNames, 'group' | 'person' | 'condition'>): Words =>
  audienceInWords(rule, (word) => {
    if (word.startsWith('@')) return names.person(word.slice(1));
    return word.startsWith('?')
      ? said('people:whoMeets', { condition: names.condition(word.slice(1)) })
      : names.group(word);
  });

function changedInWords({ field, before, after }: Extract<GroundChange, { kind: 'changed' }>): Said {
  if (field === 'active') return said(after === 'yes' ? 'ground:did.active' : 'ground:did.inactive');
  if (field === 'retired') return said(after === 'yes' ? 'ground:did.retired' : 'ground:did.backInUse');
  if (field === 'isTeam') return said(after === 'yes' ? 'ground:did.team' : 'ground:did.noTeam');
  return said('ground:did.changed', {
    what: said(`ground:set.${field}`),
    before: valueInWords(field, before),
    after: valueInWords(field, after),
  });
}

/** From when until when, as far as it is settled: “since 1 March”, “until 4 December”; empty for always. */
export function daysInWords({ from, until }: { readonly from: string | null; readonly until: string | null }): Words {
  if (from !== null && until !== null) return said('ground:fromUntil', { from, until });
  if (from !== null) return said('ground:since', { from });
  return until === null ? '' : said('ground:until', { until });
}

/** Whether what was set can be undone by itself. */
export const mayBeUndone = (change: GroundChange): boolean =>
  ((change.kind === 'entered' || change.kind === 'left') && !change.byRule) || isUndoable(change);

const isUndoable = ({ kind }: GroundChange): boolean =>
  kind === 'changed' ||
  kind === 'profile' ||
  kind === 'ruled' ||
  kind === 'given' ||
  kind === 'taken' ||
  kind === 'apart' ||
  kind === 'put-back' ||
  kind === 'differing' ||
  kind === 'away' ||
  kind === 'back';

const OPPOSITE = {
  ...{ entered: 'left', left: 'entered', given: 'taken', taken: 'given', away: 'back', back: 'away' },
  ...{ 'put-back': 'differing', differing: 'put-back' },
} as const satisfies Partial<Record<GroundChange['kind'], GroundChange['kind']>>;

/** The change that undoes one: what was comes again. */
export function undoingOf(change: GroundChange): GroundChange {
  if (change.kind === 'changed' || change.kind === 'profile' || change.kind === 'ruled')
    return { ...change, before: change.after, after: change.before } as GroundChange;
  if (change.kind === 'apart') return { ...change, on: !change.on };
  const kind = OPPOSITE[change.kind as keyof typeof OPPOSITE] as GroundChange['kind'] | undefined;
  return kind ? ({ ...change, kind } as GroundChange) : change;
}
