import type Sqlite from 'better-sqlite3';

/** What has to stand in the data of a release, each with the query that counts it. */
const PLAYED: Readonly<Record<string, string>> = {
  'a request that came by a door of the staff':
    "select count(*) from requests join doors on doors.id = door_id where kind = 'staff'",
  'a request from outside': "select count(*) from requests join doors on doors.id = door_id where kind = 'outside'",
  'a request from a sheet of rows':
    "select count(*) from requests where number like 'GE-%' and json_extract(\"values\", '$.code') = 'R1'",
  'a trial': 'select count(*) from requests where trial = 1',
  'a trial from outside':
    "select count(*) from requests join doors on doors.id = door_id where trial = 1 and kind = 'outside'",
  'a thing': "select count(*) from requests where stage = 'in_use'",
  'a thing out of use': "select count(*) from requests where stage = 'gone'",
  'a request of every release':
    "select min((select count(*) from requests where release_id = releases.id) > 0) from releases join forms on forms.id = form_id where key = 'gear'",
  'a finished request taken up again': "select count(*) from history where kind = 'stage' and words = 'Done → In hand'",
  'a pause that is over':
    "select count(*) from history where kind = 'stage' and words = 'Waiting for papers → In hand'",
  'a request paused now': "select count(*) from requests where phase = 'paused'",
  'a request paused twice': "select count(*) from requests where json_array_length(deadline, '$.pauses') > 1",
  'a handler taken back': "select count(*) from history where words = 'Given back to the team'",
  'a note and a message':
    "select count(distinct json_extract(comment, '$.visibility')) > 1 from history where kind = 'comment'",
  'a message by the requester': "select count(*) from history where words like 'Message from%'",
  'a change by hand': "select count(*) from history where words = 'Fields changed'",
  'a change that followed another': "select count(*) from history where words like 'Followed a change%'",
  'a rule over what was there': "select count(*) from history where words like 'Rule%was applied%'",
  'a run of a rule taken back': 'select count(*) from rule_runs where taken_back_at is not null',
  'a run that can be taken back': 'select count(*) from rule_runs where taken_back_at is null',
  'a rule that makes fields': "select count(*) from registers where ran <> '[]'",
  'a merged term': 'select count(*) from vocabularies where terms like \'%"now":"saithe"%\'',
  'an approval that waits': "select count(*) from approvals where state = 'waiting'",
  'an approval given': "select count(*) from approvals where state = 'approved'",
  'an approval refused': "select count(*) from approvals where state = 'refused'",
  'a reminder and an escalation that waits': "select count(distinct kind) > 1 from timers where state = 'waiting'",
  'a reminder and an escalation done': "select count(distinct kind) > 1 from timers where state = 'done'",
  'a reminder and an escalation dropped': "select count(distinct kind) > 1 from timers where state = 'dropped'",
  'a letter that went': "select count(*) from outbox where state = 'sent'",
  'a letter given up': "select count(*) from outbox where state = 'failed'",
  'a letter that waits for its next try': "select count(*) from outbox where state = 'waiting' and attempts > 0",
  'a letter under way at a kill': "select count(*) from outbox where state = 'sending'",
  'every kind of letter': 'select count(distinct kind) >= 11 from outbox',
  'a file of a request': 'select count(*) from uploads where request_id is not null',
  'a file nobody claimed': 'select count(*) from uploads where request_id is null',
  'answers kept by staff': 'select count(*) from kept_answers where person_id is not null',
  'answers kept from outside': 'select count(*) from kept_answers where email is not null',
  'a submission that waits for its address': `select count(*) from waiting_submissions where expires_at > ${NOW()}`,
  'a submission whose link has ended': `select count(*) from waiting_submissions where expires_at < ${NOW()}`,
  'a draft with errors never released': 'select count(*) from forms where release = 0',
  'a state of a draft by each of two': 'select count(distinct changed_by) > 1 from draft_states',
  'a door that is shut': 'select count(*) from doors where open = 0',
  'a door shut with a message': "select count(*) from doors where open = 0 and closed_message <> ''",
  'every event of a plan': "select count(distinct json_extract(event, '$.kind')) = 4 from plan_history",
  'a disclosure in force': "select count(*) from registers where access like '%disclosures\":[{%'",
  'a running number': 'select count(*) from counters',
  'a claim of each rule': 'select count(distinct rule_id) > 1 from claims',
  'a register of things that stays in': 'select count(*) from registers where stays_in = 1',
  ...links('confirm', ['used', 'open', 'ended']),
  ...links('decide', ['used', 'open', 'ended']),
  ...links('follow', ['open']),
  ...links('resume', ['open']),
};

function NOW(): string {
  return "(select cast(value as integer) from settings where key = 'demo-now')";
}

function links(purpose: string, states: readonly ('used' | 'open' | 'ended')[]): Readonly<Record<string, string>> {
  const where = {
    used: 'used_at is not null',
    open: `used_at is null and expires_at > ${NOW()}`,
    ended: `used_at is null and expires_at <= ${NOW()}`,
  };
  return Object.fromEntries(
    states.map((state) => [
      `a link to ${purpose}, ${state}`,
      `select count(*) from links where purpose = '${purpose}' and ${where[state]}`,
    ]),
  );
}

/** Tables in which nothing is ever written by what people do. */
const EMPTY = new Set(['verification', 'sqlite_sequence']);

/** What was not played, in words; every table besides has to hold something. */
export function gapsIn(db: Sqlite.Database): readonly string[] {
  const tables = db.prepare("select name from sqlite_master where type = 'table'").pluck().all() as string[];
  return [
    ...tables
      .filter((table) => !EMPTY.has(table) && !db.prepare(`select 1 from "${table}" limit 1`).get())
      .map((table) => `nothing in ${table}`),
    ...Object.entries(PLAYED).flatMap(([what, query]) => (db.prepare(query).pluck().get() ? [] : [what])),
  ];
}
