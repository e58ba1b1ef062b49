import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { REGISTER, type RegisterContent, type RegisterSettings, settingsOf } from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import { type Done, keepDraft } from '../design/commands.ts';
import { type DesignRow, designByKey } from '../design/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, staleVersion } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { contentOf, type RegisterRow, registerById, registerNamed } from '../register/queries.ts';
import { refuseWrong, registerProblems } from './registerProblems.ts';
import { putRegisterInForce } from './registers.ts';

type Told = Pick<AnswerOf<'register'>, 'draft' | 'changes' | 'problems'>;

/** A register as a design, with its draft. @throws Problem 404 */
export function designOf(db: Reader, key: string): DesignRow<RegisterContent> {
  const design = designByKey(db, REGISTER, key);
  if (!design) throw notFound('register');
  return design;
}

/** What is being settled of a register: what it would change of what is in force, and what keeps it from that. */
export const draftOf = (db: Reader, register: RegisterRow): Told =>
  told(db, register, settingsOf(designOf(db, register.key).draft));

function told(db: Reader, register: RegisterRow, settings: RegisterSettings): Told {
  const inForce = contentOf(register);
  return {
    draft: { ...settings, deskGroups: [...settings.deskGroups], stages: [...settings.stages] } as Told['draft'],
    changes: REGISTER.compare(inForce, { ...inForce, ...settings }).map((change) => ({ ...change })),
    problems: registerProblems(db, register, { ...settings, left: register.left }).map(({ field, message, fix }) => ({
      ...{ field, message, fix },
    })),
  };
}

/** Keeps what is being settled of a register. @throws Problem 412 when somebody was faster. */
export function keepRegister(
  house: House,
  viewer: Viewer,
  {
    key,
    version,
    settings,
  }: { readonly key: string; readonly version: number; readonly settings: BodyOf<'keepRegister'> },
): AnswerOf<'keepRegister'> {
  return write(house, ({ tx, now }) => {
    const design = designOf(tx, key);
    const done: Done = { viewer, now };
    const next = keepDraft<RegisterContent>(tx, design, { version, content: { ...design.draft, ...settings } }, done);
    const { changes, problems } = told(tx, registerNamed(tx, key), settings);
    return { version: next, changes, problems };
  });
}

/**
 * Puts what is settled in the draft of a register in force.
 *
 * @throws Problem 412 when somebody was faster, 422 when something is wrong with it.
 */
export function putRegister(
  house: House,
  viewer: Viewer,
  { key, version, note }: BodyOf<'putRegister'> & { readonly key: string; readonly version: number },
): { version: number } {
  return write(house, (work) => {
    const { tx } = work;
    const register = registerNamed(tx, key);
    if (register.version !== version) throw staleVersion();
    const settings = settingsOf(designOf(tx, key).draft);
    const settled = { ...settings, name: settings.name.trim() };
    refuseWrong(tx, register, { ...settled, left: register.left });
    putRegisterInForce(work, register, { ...contentOf(register), ...settled }, { note: note.trim(), by: viewer });
    return { version: registerById(tx, register.id).version };
  });
}
