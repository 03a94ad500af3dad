import { PageTabs } from '../ui/PageTabs.tsx';

export function HouseTabs() {
  return (
    <PageTabs
      label="House book"
      tabs={[
        { to: '/house', name: 'Recipes', end: true },
        { to: '/house/drinks', name: 'Drinks' },
        { to: '/house/policies', name: 'How we decide' },
        { to: '/house/wall', name: 'Wall card' },
        { to: '/house/cafe', name: 'Café' },
      ]}
    />
  );
}
