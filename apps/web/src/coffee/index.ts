export { HopperButton } from './HopperButton.tsx';
export { NewBag } from './NewBag.tsx';
