export { designFromRows, guessKind } from './guess.ts';
export { blankDesign, type Ground, type Recipe } from './recipe.ts';
export { RECIPES } from './recipes.ts';
