export { CafePage } from './CafePage.tsx';
export { DrinkSheetPage, DrinksPage } from './DrinksPage.tsx';
export { PoliciesPage } from './PoliciesPage.tsx';
export { RecipeEditPage } from './RecipeEditPage.tsx';
export { RecipePage } from './RecipePage.tsx';
export { RecipesPage } from './RecipesPage.tsx';
export { WallCardPage } from './WallCardPage.tsx';
