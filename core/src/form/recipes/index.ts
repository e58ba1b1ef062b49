export { designFromRows, guessKind } from './guess.ts';
export { asking, blankDesign, designOf, type Ground, type Recipe, recipeLabel, recipeSays } from './recipe.ts';
export { RECIPES } from './recipes.ts';
