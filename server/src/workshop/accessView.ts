import { prepareAccess } from '@tolvek/core/access';
import { audienceInWords, FOR_EVERYONE, PACKAGES, type Viewer } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import type { FormRow } from '../form/queries.ts';
import { groupNames } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { protectionOfDraft } from './plan.ts';

/**
 * The access plan in sentences, and the grid that comes of it for each group, computed by the same
 * rule that protects.
 */
export function accessView(db: Reader, register: RegisterRow, form: FormRow) {
  const { draft } = form;
  const names = groupNames(db);
  const nameOf = (group: string): string => names.get(group) ?? group;
  const protection = protectionOfDraft(db, form, register);
  const { fields } = protection;
  const readingOf = prepareAccess(protection);
  // Things are neither routed nor decided: whatever their form says of it, nobody works on them by that.
  const working =
    register.holds === 'things'
      ? []
      : [
          ...draft.routing.rows.map((row) => row.outcome.team),
          draft.routing.otherwise.team,
          ...draft.approval.steps.flatMap((step) =>
            step.seats.flatMap((seat) => ('group' in seat ? [seat.group] : [])),
          ),
        ];
  const desk = new Set([...register.deskGroups, ...working]);
  const seats: { who: Words; viewer: Viewer; relation: { isDesk: boolean; isRequester: boolean } }[] = [
    {
      who: said('workshopErrors:theRequester'),
      viewer: { personId: '', kind: 'contact', rights: [], groups: [] },
      relation: { isDesk: false, isRequester: true },
    },
    ...[...desk].map((group) => ({
      who: nameOf(group),
      viewer: { personId: '', kind: 'staff' as const, rights: FOR_EVERYONE, groups: [group] },
      relation: { isDesk: true, isRequester: false },
    })),
    {
      who: said('workshopErrors:coordinators'),
      viewer: { personId: '', kind: 'staff', rights: PACKAGES.coordinator, groups: [] },
      relation: { isDesk: true, isRequester: false },
    },
  ];
  return {
    access: register.access.rules.map((rule) => ({
      name: rule.name,
      fields:
        rule.fields === 'all'
          ? [said('workshopErrors:everyField')]
          : rule.fields.map((key) => fields.find((field) => field.key === key)?.label ?? key),
      audience: audienceInWords(rule.audience, nameOf),
      level: rule.level,
    })),
    grid: fields.map((field) => ({
      field: field.key,
      label: field.label,
      cells: seats.map(({ who, viewer, relation }) => ({
        who,
        ...readingOf({ viewer, relation, purpose: 'sheet' }).levelOf(field.key),
      })),
    })),
  };
}
