type Json = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const each = (list: unknown, change: (item: Json) => Json): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isObject(item) ? change(item) : item)) : list;

/**
 * A form file of an earlier version as one of today, for the reader that checks it: a running number
 * was called `auto-number`, and an approval had one step decided by one group. What is no such file
 * is given back as it is.
 */
export function ofToday(file: unknown): unknown {
  if (!isObject(file) || file.version !== 1 || !isObject(file.design)) return file;
  const { design } = file;
  return {
    ...file,
    version: 2,
    design: {
      ...design,
      fields: each(design.fields, (field) =>
        isObject(field.type) && field.type.kind === 'auto-number'
          ? { ...field, type: { ...field.type, kind: 'running-number' } }
          : field,
      ),
      approval: inSteps(design.approval),
    },
  };
}

function inSteps(approval: unknown): unknown {
  if (!isObject(approval) || !isObject(approval.step)) return approval;
  const { group, ...step } = approval.step;
  return { steps: [{ ...step, seats: [{ group }], needed: 1 }] };
}
