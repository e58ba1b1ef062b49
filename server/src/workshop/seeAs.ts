import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Purpose } from '@tolvek/core/access';
import { rightsAt, STRANGER, type Viewer } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import { groupNames, personById, viewerIn } from '../people/queries.ts';
import { rightsOf } from '../people/rights.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { notFound, wrongFields } from '../platform/problem.ts';
import { readLog } from '../platform/tables.ts';
import { write } from '../platform/work.ts';
import { stageOf } from '../register/queries.ts';
import { openAtDesk, openRequest } from '../request/open.ts';
import { planWritten } from './planWritten.ts';

type As = BodyOf<'seeAs'>['as'];

/** Through whose eyes: a person, an invented member of the staff, or somebody who is not known. @throws Problem 404 for who is not here. */
function eyesOf(db: Reader, as: As): { readonly viewer: Viewer; readonly who: Words } {
  if (as === null)
    return {
      viewer: STRANGER,
      who: said('workshopErrors:somebodyUnknown'),
    };
  if ('person' in as) {
    const person = personById(db, as.person);
    if (!person) throw notFound('person');
    return { viewer: viewerIn(db, person), who: person.name };
  }
  const names = groupNames(db);
  if (as.groups.some((key) => !names.has(key))) throw notFound('group');
  const groups = as.groups.map((key) => names.get(key) ?? key);
  return {
    viewer: { personId: '', kind: 'staff', groups: as.groups, ...rightsOf(db, '', as.groups) },
    who: groups.length > 0 ? said('workshopErrors:somebodyIn', { groups }) : said('people:someoneOfDesk'),
  };
}

/**
 * A request as somebody else is given it: by the same door, at the stage and by the plan that are asked for. What is
 * hidden from whoever looks stays hidden from them. That they looked is written down before they are told.
 *
 * @throws Problem 403 for who does not build forms of its register, 404 for who does not work on it.
 */
export function seeAs(
  house: House,
  viewer: Viewer,
  { number, as, plan, stage, edition }: BodyOf<'seeAs'> & { readonly number: string },
): AnswerOf<'seeAs'> {
  return write(house, ({ tx, now }) => {
    const looker = openAtDesk(tx, viewer, number, 'sheet');
    const inForce = looker.register;
    if (!rightsAt(viewer, inForce.id).includes('configure')) throw house.rightMissing('configure');
    const access = plan === 'draft' ? planWritten(tx, inForce) : inForce.access;
    const register = { ...inForce, access };
    if (stage !== null && !register.stages.some(({ key }) => key === stage))
      throw wrongFields([
        { field: 'stage', message: said('workshopErrors:stageNotHere'), fix: said('workshopErrors:chooseStages') },
      ]);
    const editions = (looker.design.editions ?? []).map(({ id, name }) => ({ id, name }));
    if (typeof edition === 'string' && !editions.some(({ id }) => id === edition))
      throw wrongFields([
        { field: 'edition', message: said('workshopErrors:editionNotHere'), fix: said('workshopErrors:chooseEdition') },
      ]);
    const at = stageOf(register, stage ?? looker.request.stage);
    const request = { ...looker.request, stage: at.key, phase: at.phase };
    const { viewer: eyes, who } = eyesOf(tx, as);
    const seen = (purpose: Purpose) => openRequest(tx, request, eyes, purpose, { register, looker, edition });
    const sheet = seen('sheet');
    const { isDesk, isRequester, calledIn = false } = sheet.relation;
    const sees = isDesk ? 'sheet' : isRequester ? 'own' : calledIn ? 'given' : 'nothing';
    tx.insert(readLog)
      .values({
        ...{ id: newId(), at: now, by: viewer.personId, registerId: register.id, numbers: [request.number] },
        about: { kind: 'seen-as', as, plan, stage, ...(edition === undefined ? {} : { edition }) },
      })
      .run();
    const nothing = {
      subject: null,
      inLists: null,
      inEmails: null,
      fields: [],
      edition: null,
      editions,
      mayExport: false,
    };
    const told = {
      who,
      sees,
      number: request.number,
      stage: sees === 'own' || sees === 'given' ? at.publicLabel : at.label,
    } as const;
    if (sees === 'nothing') return { ...told, ...nothing };
    const there = sees === 'own' ? seen('following') : sheet;
    const [letter, file, list] = [seen('letter'), seen('taking-out'), seen('list')];
    const shown = new Map(there.values.fields.map((field) => [field.key, field.shown]));
    return {
      ...told,
      subject: there.subject,
      inLists: isDesk ? list.subject : there.subject,
      inEmails: letter.subject,
      fields: there.fields.map(({ key, label }) => {
        const { level, rule } = there.reading.levelThere(key);
        return {
          ...{ key, label, level, rule, shown: shown.get(key) ?? '' },
          layout: there.layout?.leavesOut(key) ? 'left-out' : there.layout?.locks(key) ? 'locked' : null,
          isMasked: level !== 'hidden' && there.reading.levelOf(key).level === 'hidden',
          notInEmails: level !== 'hidden' && letter.reading.levelThere(key).level === 'hidden',
          notInFiles: level !== 'hidden' && sees === 'sheet' && file.reading.levelThere(key).level === 'hidden',
        };
      }),
      edition: there.layout?.edition.name ?? null,
      editions,
      mayExport: sees === 'sheet' && sheet.mayThere('export'),
    };
  });
}
