import { lazy, Suspense, type ComponentProps } from 'react';

const Dialog = lazy(async () => ({ default: (await import('./NewBag.tsx')).NewBag }));

/** The dialog for another bag, loaded when it is first asked for. */
export function NewBag(props: ComponentProps<typeof Dialog>) {
  return (
    <Suspense fallback={null}>
      <Dialog {...props} />
    </Suspense>
  );
}
