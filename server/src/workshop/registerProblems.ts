import {
  type FormDesign,
  namesUsed,
  questionsOf,
  REGISTER,
  type RegisterContent,
  type RegisterSettings,
} from '@tolvek/core/form';
import { askedByMoves, type Problem as FieldProblem, moveFindings, type Stage } from '@tolvek/core/register';
import { and, gte, lt, ne } from 'drizzle-orm';
import { currentRelease, onShelf } from '../form/queries.ts';
import { groupNames } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { wrongFields } from '../platform/problem.ts';
import { contentOf, type RegisterRow } from '../register/queries.ts';
import { openAsReleased } from '../request/protection.ts';
import { requests } from '../request/tables.ts';
import { prefixTaken } from './create.ts';

/** What uses fields of a register, and which: the drafts of its forms, and their releases in force. */
interface Use {
  readonly words: string;
  readonly keys: ReadonlySet<string>;
}

/** The fields that a form asks for, reads or computes. */
const usedIn = (design: FormDesign): ReadonlySet<string> =>
  new Set([
    ...questionsOf(design.parts).map((part) => part.field),
    ...namesUsed(design),
    ...design.fields.flatMap(({ key, source }) => (source === 'computed' || source === 'carried' ? [key] : [])),
  ]);

/** All that keeps fields from leaving a register. */
export const usesIn = (db: Reader, register: RegisterRow): readonly Use[] => [
  ...askedByMoves(register).map(({ field, stage }) => ({
    words: `A move from “${stage.label}” asks for it.`,
    keys: new Set([field]),
  })),
  ...onShelf(db, register.id).flatMap((form): Use[] => {
    const { title } = form.draft;
    const release = form.stoppedAt === null ? currentRelease(db, form) : undefined;
    return [
      { words: `The form “${title}” uses it.`, keys: usedIn(form.draft) },
      ...(release
        ? [
            {
              words: `Release ${release.number} of “${title}” uses it, and is in force.`,
              keys: usedIn(release.design),
            },
          ]
        : []),
    ];
  }),
];

/** Why a field can’t leave; null when it can. */
export const whyItStays = (uses: readonly Use[], key: string): string | null =>
  uses.find((use) => use.keys.has(key))?.words ?? null;

/** What is settled of a register, and which fields are to have left it. */
export type Settled = RegisterSettings & Pick<RegisterContent, 'left'>;

/** All that keeps what is settled of a register from being put in force. */
export const registerProblems = (tx: Reader, register: RegisterRow, settled: Settled): readonly FieldProblem[] => [
  ...settlingProblems(tx, register, settled),
  ...stageProblems(tx, register, settled.stages),
  ...REGISTER.findings({ ...contentOf(register), ...settled }, null)
    .filter(({ at }) => at === 'stages')
    .map(({ at, message }) => ({ field: at, message, fix: 'Add one, or use one again that is retired.' })),
];

/** @throws Problem 422 when something keeps it from being put in force. */
export function refuseWrong(tx: Reader, register: RegisterRow, settled: Settled): void {
  const problems = registerProblems(tx, register, settled);
  if (problems.length > 0) throw wrongFields(problems);
}

/** What keeps names, letters, desk and fields that left from being put in force. */
export function settlingProblems(
  tx: Reader,
  register: RegisterRow,
  { name, prefix, deskGroups, left, stages }: Settled,
): readonly FieldProblem[] {
  const groups = groupNames(tx);
  const uses = usesIn(tx, register);
  const isNumbered = (letters: string): boolean =>
    tx
      .select({ id: requests.id })
      .from(requests)
      // By the index of numbers: “.” comes right after “-”.
      .where(
        and(
          ...[gte(requests.number, `${letters}-`), lt(requests.number, `${letters}.`)],
          ne(requests.registerId, register.id),
        ),
      )
      .limit(1)
      .get() !== undefined;
  const isLetters = /^[A-Z]{2,5}$/.test(prefix);
  const isOthers = isLetters && prefix !== register.prefix && (prefixTaken(tx, prefix) || isNumbered(prefix));
  return [
    ...(name === '' ? [{ field: 'name', message: 'The register has no name.', fix: 'Give it one.' }] : []),
    ...(isLetters
      ? []
      : [
          {
            field: 'prefix',
            message: 'These are no letters that numbers can begin with.',
            fix: 'Use two to five capital letters, like AC.',
          },
        ]),
    ...(isOthers
      ? [
          {
            field: 'prefix',
            message: `Other requests are numbered ${prefix}-….`,
            fix: 'Choose other letters. Numbers that were given out stay as they are.',
          },
        ]
      : []),
    ...(deskGroups.length === 0
      ? [{ field: 'deskGroups', message: 'Nobody would work at its desk.', fix: 'Choose at least one group.' }]
      : []),
    ...(deskGroups.every((group) => groups.has(group))
      ? []
      : [{ field: 'deskGroups', message: 'A group does not exist.', fix: 'Choose one of the list.' }]),
    ...stages.flatMap((stage) =>
      stage.label === '' || stage.publicLabel === ''
        ? [
            {
              field: `stage ${stage.key}`,
              message: 'A stage has no name.',
              fix: 'Give it one for the desk and one for requesters.',
            },
          ]
        : [],
    ),
    ...left.flatMap((key): FieldProblem[] => {
      if (register.left.includes(key)) return [];
      const label = register.fields.find((field) => field.key === key)?.label;
      if (label === undefined)
        return [{ field: 'left', message: `There is no field “${key}” here.`, fix: 'Leave it out.' }];
      const why = whyItStays(uses, key);
      return why === null
        ? []
        : [
            {
              field: 'left',
              message: `“${label}” can’t leave. ${why}`,
              fix: 'Take it off there first, and release that.',
            },
          ];
    }),
  ];
}

/** What keeps stages from being put in force: those that are there stay, and what they are. */
function stageProblems(tx: Reader, register: RegisterRow, stages: readonly Stage[]): readonly FieldProblem[] {
  const open = new Set(openAsReleased(tx, register).map(({ key }) => key));
  const groups = groupNames(tx);
  const asked = askedByMoves({ stages, fields: register.fields }).filter(({ field }) => !open.has(field));
  return [
    ...register.stages.flatMap((was) => {
      const is = stages.find((each) => each.key === was.key);
      return is && is.phase === was.phase && is.role === was.role
        ? []
        : [
            {
              field: `stage ${was.key}`,
              message: `“${was.label}” can’t go, nor become something else: requests may be there, and histories name it.`,
              fix: 'Retire it: no request comes there any more.',
            },
          ];
    }),
    ...stages.flatMap((stage, place): FieldProblem[] => {
      const field = `stage ${stage.key}`;
      const isNew = !register.stages.some((each) => each.key === stage.key);
      if (stages.findIndex((each) => each.key === stage.key) !== place)
        return [{ field, message: 'Two stages have the same key.', fix: 'Give one of them another name.' }];
      if (isNew && (!/^[a-z][a-z0-9_]*$/.test(stage.key) || stage.role))
        return [{ field, message: 'A new stage has a key of small letters, and no role.', fix: 'Add it once more.' }];
      const unknown = (stage.moves ?? []).flatMap((move) => move.groups.filter((group) => !groups.has(group)));
      return unknown.length === 0
        ? []
        : [{ field, message: 'A move names a group that does not exist.', fix: 'Choose one of the list.' }];
    }),
    ...asked.map(({ field, stage }) => ({
      field: `stage ${stage.key}`,
      message: `A move from “${stage.label}” asks for “${register.fields.find(({ key }) => key === field)?.label ?? field}”, which somebody who works on requests may not read. Whether it can be done would tell them.`,
      fix: 'Ask for a field that is closed to nobody, or change the access plan first.',
    })),
    ...moveFindings({ stages, fields: register.fields }).map(({ at, message }) => ({
      field: `stage ${at}`,
      message,
      fix: 'Mend the move, or take it away.',
    })),
  ];
}
