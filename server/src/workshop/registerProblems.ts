import {
  type FormDesign,
  namesUsed,
  questionsOf,
  REGISTER,
  type RegisterContent,
  type RegisterSettings,
} from '@tolvek/core/form';
import { askedByMoves, type Problem as FieldProblem, moveFindings, type Stage } from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';
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
  readonly words: Words;
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
    words: said('workshopErrors:usedByMove', { stage: stage.label }),
    keys: new Set([field]),
  })),
  ...onShelf(db, register.id).flatMap((form): Use[] => {
    const { title } = form.draft;
    const release = form.stoppedAt === null ? currentRelease(db, form) : undefined;
    return [
      { words: said('workshopErrors:usedByForm', { title }), keys: usedIn(form.draft) },
      ...(release
        ? [
            {
              words: said('workshopErrors:usedByRelease', { number: release.number, title }),
              keys: usedIn(release.design),
            },
          ]
        : []),
    ];
  }),
];

/** Why a field can’t leave; null when it can. */
export const whyItStays = (uses: readonly Use[], key: string): Words | null =>
  uses.find((use) => use.keys.has(key))?.words ?? null;

/** What is settled of a register, and which fields are to have left it. */
export type Settled = RegisterSettings & Pick<RegisterContent, 'left'>;

/** All that keeps what is settled of a register from being put in force. */
export const registerProblems = (tx: Reader, register: RegisterRow, settled: Settled): readonly FieldProblem[] => [
  ...settlingProblems(tx, register, settled),
  ...stageProblems(tx, register, settled.stages),
  ...REGISTER.findings({ ...contentOf(register), ...settled }, null)
    .filter(({ at }) => at === 'stages')
    .map(({ at, message }) => ({ field: at, message, fix: said('workshopErrors:addOrRevive') })),
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
    ...(name === ''
      ? [{ field: 'name', message: said('workshopErrors:noRegisterName'), fix: said('workshopErrors:enterName') }]
      : []),
    ...(isLetters
      ? []
      : [
          {
            field: 'prefix',
            message: said('workshopErrors:badPrefix'),
            fix: said('wire:prefixSigns'),
          },
        ]),
    ...(isOthers
      ? [
          {
            field: 'prefix',
            message: said('workshopErrors:prefixTaken', { prefix }),
            fix: said('workshopErrors:otherLettersStay'),
          },
        ]
      : []),
    ...(deskGroups.length === 0
      ? [
          {
            field: 'deskGroups',
            message: said('workshopErrors:nobodyAtDesk'),
            fix: said('workshopErrors:chooseOneGroup'),
          },
        ]
      : []),
    ...(deskGroups.every((group) => groups.has(group))
      ? []
      : [{ field: 'deskGroups', message: said('workshopErrors:noGroup'), fix: said('workshopErrors:chooseGroup') }]),
    ...stages.flatMap((stage) =>
      stage.label === '' || stage.publicLabel === ''
        ? [
            {
              field: `stage ${stage.key}`,
              message: said('workshopErrors:stageNoName'),
              fix: said('workshopErrors:nameForBoth'),
            },
          ]
        : [],
    ),
    ...left.flatMap((key): FieldProblem[] => {
      if (register.left.includes(key)) return [];
      const label = register.fields.find((field) => field.key === key)?.label;
      if (label === undefined)
        return [{ field: 'left', message: said('answers:noField', { key }), fix: said('answers:removeIt') }];
      const why = whyItStays(uses, key);
      return why === null
        ? []
        : [
            {
              field: 'left',
              message: said('workshopErrors:cannotLeave', { label, why }),
              fix: said('workshopErrors:removeThereFirst'),
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
              message: said('workshopErrors:stageStays', { stage: was.label }),
              fix: said('workshopErrors:retireIt'),
            },
          ];
    }),
    ...stages.flatMap((stage, place): FieldProblem[] => {
      const field = `stage ${stage.key}`;
      const isNew = !register.stages.some((each) => each.key === stage.key);
      if (stages.findIndex((each) => each.key === stage.key) !== place)
        return [{ field, message: said('workshopErrors:sameStageKey'), fix: said('workshopErrors:renameOne') }];
      if (isNew && (!/^[a-z][a-z0-9_]*$/.test(stage.key) || stage.role))
        return [{ field, message: said('workshopErrors:badNewStage'), fix: said('workshopErrors:addAgain') }];
      const unknown = (stage.moves ?? []).flatMap((move) => move.groups.filter((group) => !groups.has(group)));
      return unknown.length === 0
        ? []
        : [{ field, message: said('workshopErrors:moveLostGroup'), fix: said('workshopErrors:chooseGroup') }];
    }),
    ...asked.map(({ field, stage }) => ({
      field: `stage ${stage.key}`,
      message: said('workshopErrors:moveReadsHidden', {
        stage: stage.label,
        field: register.fields.find(({ key }) => key === field)?.label ?? field,
      }),
      fix: said('workshopErrors:useOpenField'),
    })),
    ...moveFindings({ stages, fields: register.fields }).map(({ at, message }) => ({
      field: `stage ${at}`,
      message,
      fix: said('workshopErrors:correctMove'),
    })),
  ];
}
