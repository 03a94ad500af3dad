import { Checks } from './Checks.tsx';
import type { StepProps } from './stepProps.ts';

/** Baskets and spouts into their bath, early: they lie there while the rest is done. */
export function SoakStep({ write }: StepProps) {
  return (
    <Checks
      says="A portafilter that is still needed for flushing comes later. Handles stay out of the bath; all is rinsed before it is hung up, loosely, so that no gasket is pressed flat overnight."
      checks={['Baskets lie in the bath', 'Spouts lie in the bath']}
      action="They soak"
      onDone={() => write({ step: 'soaked' })}
    />
  );
}
