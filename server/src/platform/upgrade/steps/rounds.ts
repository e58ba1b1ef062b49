import type Sqlite from 'better-sqlite3';
import { renewDesigns } from './designs.ts';

type Json = Readonly<Record<string, unknown>>;
/** As an approval was planned when this step was written. */
interface OneStep {
  readonly step: { readonly id: string; readonly label: string; readonly group: string };
}
interface Kept {
  readonly id: string;
  readonly content: string;
}

const inSteps = ({ step: { group, ...step } }: OneStep) => ({ steps: [{ ...step, seats: [{ group }], needed: 1 }] });

/** A design with paths of steps, and with running numbers under the name they have from now on. */
export function renewed(design: Json): Json {
  const approval = design.approval as OneStep | undefined;
  const usual = design.usual as { readonly approval: OneStep } | undefined;
  const fields = design.fields as readonly { readonly type: { readonly kind: string } }[] | undefined;
  return {
    ...design,
    ...(fields && {
      fields: fields.map((field) =>
        field.type.kind === 'auto-number' ? { ...field, type: { ...field.type, kind: 'running-number' } } : field,
      ),
    }),
    ...(approval && { approval: inSteps(approval) }),
    ...(usual && { usual: { ...usual, approval: inSteps(usual.approval) } }),
  };
}

/**
 * Approval paths have steps with seats, in every state of forms and registers and in every draft;
 * what was decided says what it led to: with one step, the end.
 */
export function pathsInSteps(db: Sqlite.Database): void {
  renewDesigns(db, renewed);
  const decisions = db.prepare("select id, data as content from history where kind = 'decision' and data is not null");
  const update = db.prepare('update history set data = ? where id = ?');
  for (const { id, content } of decisions.all() as Kept[]) {
    const data = JSON.parse(content) as { readonly kind: string; readonly verdict: 'approve' | 'refuse' };
    if (data.kind !== 'decided') continue;
    update.run(JSON.stringify({ ...data, leadsTo: data.verdict === 'approve' ? 'approved' : 'refused' }), id);
  }
}
