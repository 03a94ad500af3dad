export { BagsPage } from './BagsPage.tsx';
export { CoffeePage } from './CoffeePage.tsx';
export { BagSheetPage, CoffeeSheetPage } from './SheetPages.tsx';
export { UsePage } from './UsePage.tsx';
export { NewBag } from './NewBag.tsx';
export { useHopper } from './useHopper.ts';
