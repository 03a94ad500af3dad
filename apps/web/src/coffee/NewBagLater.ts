import { later } from '../kernel/later.tsx';
import type { NewBagProps } from './NewBag.tsx';

/** The dialog for another bag, fetched when it is first asked for. */
export const NewBag = later<NewBagProps>(async () => (await import('./NewBag.tsx')).NewBag);
