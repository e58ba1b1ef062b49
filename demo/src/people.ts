/**
 * The made-up people of Skerrow Point Marine Station. Those with `does` are offered on the demo's
 * sign-in page.
 */
export interface DemoPerson {
  readonly name: string;
  readonly role?: 'administrator' | 'coordinator';
  readonly groups: readonly string[];
  readonly does?: string;
}

export const STAFF: readonly DemoPerson[] = [
  {
    name: 'Maren Okafor',
    role: 'coordinator',
    groups: ['desk-leads'],
    does: 'Coordinator: builds the forms and watches the work',
  },
  { name: 'Ilse Brandvold', groups: ['estates'], does: 'Handler: works on the requests for Estates' },
  { name: 'Tomas Achterberg', groups: ['duty-managers'], does: 'Approver: approves or refuses requests' },
  { name: 'Priya Nakamura-Lind', groups: [], does: 'Biologist: sends requests' },
  { name: 'Oskar Veldhuis', groups: ['site-safety'], does: 'Site safety: can read what others cannot' },
  { name: 'Ada Quillfeather', role: 'administrator', groups: ['administrators'], does: 'Administrator' },
  { name: 'Bram Solheim', groups: ['boats'], does: 'Handler: works on the requests for Boats' },
  { name: 'Nuala Fenwick', groups: ['estates'] },
  { name: 'Cormac Dewhurst', groups: ['estates'] },
  { name: 'Signe Halvard', groups: ['boats'] },
  { name: 'Yusuf Marchetti', groups: ['boats'] },
  { name: 'Edda Kilbride', groups: ['duty-managers'] },
  { name: 'Lorcan Abernethy', groups: ['site-safety'] },
  { name: 'Hanne Istvan', groups: [] },
  { name: 'Ruadhan Pell', groups: [] },
  { name: 'Mireille Thorsby', groups: [] },
  { name: 'Declan Oyelaran', groups: [] },
  { name: 'Saoirse Lindqvist', groups: [] },
  { name: 'Emeric Vantongeren', groups: ['lab'], does: 'Analyst: works on the requests for the Analytical Lab' },
  { name: 'Tilda Okonjo-Reyes', groups: ['lab'] },
  { name: 'Gunnar Peverell', groups: ['dive-safety'] },
  { name: 'Maeve Castellanos', groups: ['dive-safety'] },
  { name: 'Jory Blackadder-Finn', groups: ['stores'] },
  { name: 'Anneke Rasmus', groups: ['purchasing'] },
  { name: 'Dorothea Lambrecht', groups: ['outreach'] },
];

export const GROUPS: readonly { readonly key: string; readonly name: string; readonly isTeam: boolean }[] = [
  { key: 'estates', name: 'Estates', isTeam: true },
  { key: 'boats', name: 'Boats', isTeam: true },
  { key: 'lab', name: 'Analytical Lab', isTeam: true },
  { key: 'dive-safety', name: 'Dive Safety', isTeam: true },
  { key: 'stores', name: 'Stores', isTeam: true },
  { key: 'purchasing', name: 'Purchasing', isTeam: true },
  { key: 'outreach', name: 'Outreach', isTeam: true },
  { key: 'site-safety', name: 'Site safety', isTeam: false },
  { key: 'duty-managers', name: 'Duty managers', isTeam: false },
  { key: 'desk-leads', name: 'Desk leads', isTeam: false },
  { key: 'administrators', name: 'Administrators', isTeam: false },
];

export const CONTACTS: readonly {
  readonly name: string;
  readonly at: string;
  readonly institute: string;
  readonly active?: false;
}[] = [
  { name: 'Wim Haldane', at: 'haldane', institute: 'haldane' },
  { name: 'Greta Moss', at: 'haldane', institute: 'haldane' },
  { name: 'Noor Castellan', at: 'corrin', institute: 'corrin' },
  { name: 'Piet Arrowsmith', at: 'corrin', institute: 'corrin' },
  { name: 'Lena Varga-Holt', at: 'tarnbay', institute: 'tarnbay' },
  { name: 'Idris Coombe', at: 'tarnbay', institute: 'tarnbay' },
  { name: 'Freya Nordahl', at: 'merrow', institute: 'merrow' },
  { name: 'Kasper Lund-Weir', at: 'merrow', institute: 'merrow', active: false },
];

/** `Maren Okafor` at Skerrow Point is maren.okafor@skerrow.example. */
export const addressOf = (name: string, at = 'skerrow'): string =>
  `${name.toLowerCase().replace(/[^a-z]+/g, '.')}@${at}.example`;
