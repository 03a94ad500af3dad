import { PageTabs } from '../ui/PageTabs.tsx';

export function CoffeeTabs() {
  return (
    <PageTabs
      label="Coffee"
      tabs={[
        { to: '/coffee', name: 'Coffees', end: true },
        { to: '/coffee/bags', name: 'Bags' },
        { to: '/coffee/use', name: 'Used' },
      ]}
    />
  );
}
