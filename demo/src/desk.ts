import { type DeskSettings, NEW_DESK } from '@tolvek/core/settings';

/** The demo's desk. */
export const DESK_AS_LAID: DeskSettings = {
  ...NEW_DESK,
  ...{
    organisation: 'Skerrow Point Marine Station',
    name: 'Field Operations Desk',
    zone: 'Europe/Dublin',
    calendar: 'desk',
  },
  sender: { name: '', address: 'desk@skerrow.example' },
  texts: 'phone',
  skills: { register: 'my-skills', person: 'person', skill: 'skill', level: 'level', checked: 'since' },
};
