export { HopperButton } from './HopperButton.tsx';
export { NewBag } from './lateNewBag.tsx';
