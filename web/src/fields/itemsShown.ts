/** What lines come to while they are typed, loaded with the rules of a form. */
export { itemsShown } from '@tolvek/core/register';
