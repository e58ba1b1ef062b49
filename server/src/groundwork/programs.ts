import type { AnswerOf, BodyOf, programRoutes } from '@tolvek/contract';
import { FORM, freshKey } from '@tolvek/core/form';
import { may, type Viewer } from '@tolvek/core/people';
import { PROGRAM, type Program } from '@tolvek/core/program';
import { said } from '@tolvek/words';
import { desc, eq } from 'drizzle-orm';
import { changeAtOnce, makeInForce } from '../design/commands.ts';
import { type DesignRow, designsOf, statesOf } from '../design/queries.ts';
import { allForms, releaseInForce } from '../form/queries.ts';
import { maySendAgain, programsFailed, sendAgainTo } from '../notice/failed.ts';
import { notifyProgram } from '../notice/notify.ts';
import { notices } from '../notice/tables.ts';
import { bearersTold } from '../people/bearers.ts';
import { noteGround } from '../people/history.ts';
import { groupNames, namesOf } from '../people/queries.ts';
import { stateOfBearer } from '../platform/bearers.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { notFound, staleVersion, wrongFields } from '../platform/problem.ts';
import type { Handlers } from '../platform/serve.ts';
import { by, write } from '../platform/work.ts';
import { endKey, keysOf, makeKey } from '../program/keys.ts';
import { allPrograms, programByKey } from '../program/queries.ts';
import { renewSecret, secretOf } from '../program/secrets.ts';
import { heardInPlace, hearInPlace } from '../program/standIn.ts';
import { allRegisters } from '../register/queries.ts';

type Plan = BodyOf<'createProgram'>['program'];

/** So much of what a program was told is listed. */
const TOLD = 30;

const known = (db: Reader, key: string): DesignRow<Program> => {
  const program = programByKey(db, key);
  if (!program) throw notFound('program');
  return program;
};

/** All programs by name, and what a program can name. */
function programsView(db: Reader, viewer: Viewer, now: number): AnswerOf<'programs'> {
  const failed = new Map(programsFailed(db).map(({ key, count }) => [key, count]));
  return {
    programs: allPrograms(db).map(({ key, name, retired = false, address }) => ({
      ...{ key, name, retired, isTold: address !== '', failed: failed.get(key) ?? 0 },
      keys: keysOf(db, key).filter((row) => stateOfBearer(row, now) === 'works').length,
    })),
    groups: [...groupNames(db)].map(([key, name]) => ({ key, name })),
    registers: allRegisters(db).map(({ id, name }) => ({ id, name })),
    mayChange: may(viewer, 'rights'),
  };
}

/** The notices in force that tell a program, by their forms. */
const toldBy = (db: Reader, key: string): AnswerOf<'program'>['toldBy'] =>
  allForms(db).flatMap((form) => {
    const design = releaseInForce(db, form.id)?.design;
    return (design?.notices?.rules ?? []).flatMap(({ key: notice, name, off, to }) =>
      !off && to.some((each) => typeof each === 'object' && 'program' in each && each.program === key)
        ? [{ form: form.key, title: design?.title ?? '', notice, name }]
        : [],
    );
  });

/** Titles of the forms that name a program, in force or as they are being written. */
const namedBy = (db: Reader, key: string): readonly string[] => [
  ...toldBy(db, key).map(({ title }) => title),
  ...allForms(db).flatMap(({ draft }) =>
    FORM.refersTo(draft).some((each) => each.kind === 'program' && each.key === key) ? [draft.title] : [],
  ),
];

function toldLately(db: Reader, key: string): AnswerOf<'program'>['told'] {
  const rows = db
    .select()
    .from(notices)
    .where(eq(notices.program, key))
    .orderBy(desc(notices.createdAt), desc(notices.id))
    .limit(TOLD)
    .all();
  return rows.map((notice) => {
    const { id, state, why, createdAt, attempts, nextAttemptAt, lastError, subject, kind } = notice;
    const shown = state === 'sent' || state === 'failed' ? state : state === 'dropped' ? 'settled' : 'waiting';
    return {
      ...{ id, at: iso(createdAt), attempts, again: maySendAgain(notice) },
      about: kind === 'test' ? '' : subject,
      state: why === 'hidden' || why === 'off' ? why : shown,
      next: shown === 'waiting' ? iso(nextAttemptAt) : null,
      error: state === 'sent' ? null : lastError,
    };
  });
}

/** A program, its keys, what tells it, and what it was. */
function programView(db: Reader, key: string, now: number): AnswerOf<'program'> {
  const { id, version, draft } = known(db, key);
  const states = statesOf<Program>(db, { id });
  const names = namesOf(
    db,
    states.map(({ by: who }) => who),
  );
  return {
    ...{ key, version, program: draft, toldBy: toldBy(db, key), told: toldLately(db, key) },
    keys: bearersTold(db, keysOf(db, key), now),
    states: states.map(({ number, note, by: who, at, content }) => ({
      ...{ number, note, by: names.get(who) ?? '', at: iso(at), program: content },
    })),
  };
}

/** @throws Problem 422 for what a program can't be */
function refuseUnsound(db: Reader, program: Program): void {
  const around = { groups: [...groupNames(db).keys()], registers: allRegisters(db).map(({ id }) => id) };
  const problems = PROGRAM.findings(program, around).map(({ at: field, message }) => ({
    ...{ field, message, fix: said('workshopErrors:correctIt') },
  }));
  const [form] = program.retired || program.address === '' ? namedBy(db, program.key) : [];
  const inUse =
    form === undefined
      ? []
      : [
          {
            field: program.retired ? 'retired' : 'address',
            message: said('programs:inUse', { form }),
            fix: said('programs:leaveOut'),
          },
        ];
  if (problems.length + inUse.length > 0) throw wrongFields([...problems, ...inUse]);
}

/** Adds a program, in force at once. @throws Problem 422 */
const createProgram = (
  house: House,
  viewer: Viewer,
  { program }: BodyOf<'createProgram'>,
  sentKey: string,
): AnswerOf<'createProgram'> =>
  write(house, ({ tx, now }) =>
    once(tx, { key: sentKey, scope: `program ${viewer.personId}`, content: program, now }, () => {
      const key = freshKey(program.name, new Set(designsOf(tx, PROGRAM).map((each) => each.key)));
      const content = { ...program, key };
      refuseUnsound(tx, content);
      makeInForce(tx, PROGRAM, { key, content, note: '' }, { viewer, now });
      return { key };
    }),
  );

/** Puts another state of a program in force at once. @throws Problem 404, 412, 422 */
const changeProgram = (
  house: House,
  viewer: Viewer,
  { key, version, program, note }: { key: string; version: number; program: Plan; note: string },
): AnswerOf<'changeProgram'> =>
  write(house, ({ tx, now }) => {
    const design = known(tx, key);
    if (design.version !== version) throw staleVersion();
    const content = { ...program, key };
    refuseUnsound(tx, content);
    return { version: changeAtOnce(tx, design, { version, content, note: note.trim() }, { viewer, now }) };
  });

const secretView = ({ db, config, clock }: House, key: string): AnswerOf<'programSecret'> => {
  known(db, key);
  const { secret, untilBoth } = secretOf(db, config.secret, key, clock.now());
  return { secret, untilBoth: untilBoth === null ? null : iso(untilBoth) };
};

/** @throws Problem 404 outside the demo: the stand-in ships for it alone */
const onlyDemo = ({ config }: House): void => {
  if (config.mode !== 'demo') throw notFound('mailroom');
};

export function programHandlers(house: House): Handlers<typeof programRoutes> {
  const { db, clock } = house;
  return {
    programs: ({ viewer }) => programsView(db, viewer, clock.now()),
    createProgram: ({ viewer, body, key }) => createProgram(house, viewer, body, key),
    program: ({ params }) => programView(db, params.key, clock.now()),
    changeProgram: ({ viewer, params, body, version }) =>
      changeProgram(house, viewer, { key: params.key, version, ...body }),
    addProgramKey: ({ viewer, params, body }) =>
      write(house, (work) => {
        known(work.tx, params.key);
        return makeKey(by(work, viewer.personId), { program: params.key, ...body });
      }),
    endProgramKey: ({ viewer, params }) => {
      write(house, (work) => endKey(by(work, viewer.personId), { program: params.key, id: params.id }));
      return { done: true };
    },
    programSecret: ({ params }) => secretView(house, params.key),
    renewProgramSecret: ({ viewer, params }) => {
      write(house, (work) => {
        const { draft } = known(work.tx, params.key);
        renewSecret(work, params.key);
        noteGround(by(work, viewer.personId), 'desk', 'programs', { kind: 'secret', program: draft.name });
      });
      return secretView(house, params.key);
    },
    tryProgram: ({ viewer, params }) => {
      write(house, (work) => {
        const { draft } = known(work.tx, params.key);
        if (draft.address === '' || draft.retired)
          throw wrongFields([
            { field: 'address', message: said('programs:notOffered'), fix: said('programs:chooseOther') },
          ]);
        notifyProgram(by(work, viewer.personId), params.key);
      });
      house.wakeOutbox();
      return { done: true };
    },
    tellProgramAgain: ({ params }) => {
      sendAgainTo(house, params);
      house.wakeOutbox();
      return { done: true };
    },
    hearAsProgram: async ({ params, request, response }) => {
      onlyDemo(house);
      await hearInPlace(house, params.name, request, response);
    },
    toldPrograms: () => {
      onlyDemo(house);
      return { told: heardInPlace(db) };
    },
  };
}
