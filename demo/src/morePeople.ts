/** The scientists of the station: they send requests, and work on none. */
export const SCIENTISTS: readonly string[] = [
  ...['Aoife Brannock', 'Benedek Sarosi', 'Carys Penhallow', 'Dov Lindgren', 'Esme Tarrant', 'Finn Oduya'],
  ...['Greta Halloran', 'Hugo Vasteras', 'Imre Kestrel', 'Jonna Waldeck', 'Kit Amadi', 'Liesl Thorn'],
  ...['Mads Orrin', 'Niamh Corley', 'Oren Pasco', 'Piet Roe'],
];

/** Groups that hold groups, and who is in them besides. */
export const NESTED: readonly { readonly name: string; readonly about: string; readonly groups: readonly string[] }[] =
  [
    { name: 'Field teams', about: 'Whoever goes out to sea', groups: ['boats', 'dive-safety'] },
    { name: 'Safety officers', about: 'Asked when something is dangerous', groups: ['dive-safety', 'site-safety'] },
  ];

/** A group whose members follow from what the station knows of its people. */
export const RULED = {
  name: 'North laboratory',
  about: 'Whoever works there',
  rule: { in: { anyOf: ['?me.site = "north_laboratory"'] }, outOf: [] },
} as const;

const INSTITUTES = {
  haldane: ['Maud Ferriter', 'Odo Sprake', 'Runa Haldor', 'Silas Eade', 'Tove Lang', 'Una Merrick'],
  corrin: ['Alban Teague', 'Bea Winslow', 'Conall Dray', 'Dilys Hart', 'Einar Sund', 'Fenella Roche'],
  tarnbay: ['Gethin Moyle', 'Hedda Crane', 'Ivor Penrose', 'Jutta Weld', 'Kester Vane', 'Lowri Stang'],
  merrow: ['Magda Fenn', 'Nils Harrow', 'Oda Quell', 'Perran Tooth', 'Quill Aske', 'Rhona Lisle'],
  skelling: ['Sorcha Dunne', 'Tam Ardley', 'Ulf Brandt', 'Verity Colm', 'Wyn Gaskell', 'Xanthe Moor'],
  orfordness: ['Yrsa Holm', 'Zeb Carrick', 'Anselm Dyer', 'Briony Keel', 'Caspar Lund', 'Dagny Frey'],
  havelock: ['Edith Marrow', 'Fergal Swann', 'Gudrun Pike', 'Halvar Stone', 'Isolde Wren'],
  ballast: ['Jem Torrance', 'Katrin Vole', 'Lars Mabey', 'Mina Ostler', 'Nell Garrow'],
  greysound: ['Orla Fitch', 'Padrig Noone', 'Rosalind Teal', 'Stellan Roe', 'Tilde Marsh', 'Wim Haldane'],
} as const;

/** Contacts of nine institutes besides those who send requests; the last of each is inactive, and one has a namesake. */
export const MORE_CONTACTS: readonly { readonly name: string; readonly at: string; readonly active: boolean }[] =
  Object.entries(INSTITUTES).flatMap(([at, names]) =>
    names.map((name, place) => ({ name, at, active: place < 5 || name === 'Wim Haldane' })),
  );
