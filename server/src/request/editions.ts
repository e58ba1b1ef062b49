import type { Reading, Relation } from '@tolvek/core/access';
import { namesIn } from '@tolvek/core/expression';
import { chooseEdition, type Edition, type FormDesign } from '@tolvek/core/form';
import { inRegister, profileConditionsIn } from '@tolvek/core/people';
import { meetingAlso, personById } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { momentOf } from './moment.ts';
import type { ShownRow } from './queries.ts';

interface Opened {
  readonly request: ShownRow;
  readonly register: RegisterRow;
  /** The design of the release it came by. */
  readonly design: FormDesign;
  readonly reading: Reading;
  readonly relation: Relation;
}

/** Where a request stands, as a condition calls it: open to whoever may read the request. */
const STANDING = 'request';

/**
 * The edition that somebody is given who opens a request that is there. A condition over what they may not read does not
 * hold for them: how a request is laid out tells nothing that the plan hides.
 */
export function editionGiven(db: Reader, { request, register, design, reading, relation }: Opened): Edition | null {
  const { editions = [] } = design;
  if (editions.length === 0) return null;
  const { viewer } = reading.situation;
  const profile = editions.flatMap(({ audience }) => profileConditionsIn(audience));
  const who = inRegister(meetingAlso(db, viewer, personById(db, viewer.personId), profile), register.id);
  const moment = momentOf(db, request, register, true);
  const holds = (condition: string): boolean =>
    namesIn(condition).every((name) => name === STANDING || reading.mayKnow(name)) && moment.holds(condition);
  return chooseEdition(editions, { who, stands: relation, stage: request.stage, holds }).edition;
}
