import { type DirectoryAttribute, isMailAddress } from '../register/index.ts';
import { ENTERPRISE, isRecord, type Json, type Resource, valuesOf } from './attributes.ts';

const text = (value: Json | undefined): string => (typeof value === 'string' ? value.trim() : '');
const parts = (value: Json | undefined): Resource => (isRecord(value) ? value : {});

/** Of several values, the first one of a kind; without a kind, the one that is marked as first. */
function reached(value: Json | undefined, kind: string | null): string {
  const all = valuesOf(value).filter(isRecord);
  const of = kind === null ? all : all.filter((each) => text(each.type).toLowerCase() === kind);
  return text((of.find(({ primary }) => primary === true) ?? of[0])?.value);
}

/** What a directory says of one attribute; empty where it says nothing. A manager is their id. */
export function saidOf(user: Resource, attribute: DirectoryAttribute): string {
  const enterprise = parts(user[ENTERPRISE]);
  switch (attribute) {
    case 'title':
    case 'userType':
    case 'nickName':
      return text(user[attribute]);
    case 'manager':
      return text(parts(enterprise.manager).value);
    case 'phone':
      return reached(user.phoneNumbers, 'work') || reached(user.phoneNumbers, null);
    case 'mobile':
      return reached(user.phoneNumbers, 'mobile');
    default:
      return text(enterprise[attribute]);
  }
}

/** Somebody as a directory knows them. */
export interface DirectoryPerson {
  readonly name: string;
  /** Null where the directory has none that could be written to. */
  readonly email: string | null;
  /** Null where the directory says nothing of it. */
  readonly active: boolean | null;
  readonly language: 'en' | 'de' | null;
}

/** What somebody is called, reached by and reads, of all that a directory says of them. */
export function personIn(user: Resource): DirectoryPerson {
  const name = parts(user.name);
  const full = [name.givenName, name.familyName].map(text).filter(Boolean).join(' ');
  const email = [reached(user.emails, null), reached(user.emails, 'work'), text(user.userName)].find(isMailAddress);
  const [, language] = /^(en|de)(?![a-z])/i.exec(text(user.preferredLanguage) || text(user.locale)) ?? [];
  return {
    name: text(user.displayName) || text(name.formatted) || full || text(user.userName),
    email: email?.toLowerCase() ?? null,
    active: typeof user.active === 'boolean' ? user.active : null,
    language: (language?.toLowerCase() as 'en' | 'de' | undefined) ?? null,
  };
}
