export * from '../approval/tables.ts';
export * from '../deadline/tables.ts';
export * from '../door/tables.ts';
export * from '../form/tables.ts';
export * from '../notice/tables.ts';
export * from '../people/tables.ts';
export * from '../register/tables.ts';
export * from './tables.ts';
