type Json = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const each = (list: unknown, change: (item: Json) => Json): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isObject(item) ? change(item) : item)) : list;

/**
 * A form file of an earlier version as one of today, for the reader that checks it. Until the second a running number was
 * called `auto-number`, and an approval had one step decided by one group; until the third it had one path, and rows said
 * whether it was gone; until the fourth there was one deadline, with a reminder before and one after. What is no such file
 * is given back as it is.
 */
export function ofToday(file: unknown): unknown {
  if (!isObject(file) || !isObject(file.design)) return file;
  if (file.version === 1) return ofToday({ ...file, version: 2, design: asInSecond(file.design) });
  if (file.version === 2) return ofToday({ ...file, version: 3, design: asInThird(file.design) });
  return file.version === 3 ? { ...file, version: 4, design: asInFourth(file.design) } : file;
}

const asInSecond = (design: Json): Json => ({
  ...design,
  fields: each(design.fields, (field) =>
    isObject(field.type) && field.type.kind === 'auto-number'
      ? { ...field, type: { ...field.type, kind: 'running-number' } }
      : field,
  ),
  approval: inSteps(design.approval),
});

function inSteps(approval: unknown): unknown {
  if (!isObject(approval) || !isObject(approval.step)) return approval;
  const { group, ...step } = approval.step;
  return { steps: [{ ...step, seats: [{ group }], needed: 1 }] };
}

const asInThird = (design: Json): Json => ({
  ...design,
  routing: isObject(design.routing)
    ? {
        ...design.routing,
        rows: each(design.routing.rows, (row) => ({ ...row, outcome: byPath(row.outcome) })),
        otherwise: byPath(design.routing.otherwise),
      }
    : design.routing,
  approval: isObject(design.approval) ? { paths: [{ id: ONLY_PATH, label: '', ...design.approval }] } : design.approval,
});

/** What the path of then is called from the third version on. */
const ONLY_PATH = 'path';

function byPath(outcome: unknown): unknown {
  if (!isObject(outcome) || typeof outcome.needsApproval !== 'boolean') return outcome;
  const { needsApproval, ...others } = outcome;
  return { ...others, path: needsApproval ? ONLY_PATH : null };
}

const asInFourth = (design: Json): Json => ({ ...design, deadline: inList(design.deadline) });

/** One deadline as the finish in a list of them. */
function inList(deadline: unknown): unknown {
  if (!isObject(deadline) || 'deadlines' in deadline) return deadline;
  const { remindBefore, escalateAfter, escalateTo, ...others } = deadline;
  return {
    ...others,
    leads: escalateTo,
    deadlines: [
      {
        ...{ key: 'finish', name: '', begins: { on: 'arrival' }, length: { by: 'routing' }, stands: { on: 'paused' } },
        ends: { on: 'finished' },
        rings: [
          { key: 'reminder', at: 0 - Number(remindBefore), tells: ['working'], does: [] },
          { key: 'escalation', at: Number(escalateAfter), tells: ['leads', 'working'], does: [] },
        ],
      },
    ],
  };
}
