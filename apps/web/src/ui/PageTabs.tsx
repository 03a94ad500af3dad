import { NavLink } from 'react-router';
import classes from './PageTabs.module.css';

/** The pages of one part of the house, side by side. */
export function PageTabs({ label, tabs }: { label: string; tabs: { to: string; name: string; end?: boolean }[] }) {
  return (
    <nav className={classes.tabs} aria-label={label}>
      {tabs.map(({ to, name, end = false }) => (
        <NavLink key={to} to={to} end={end}>
          {name}
        </NavLink>
      ))}
    </nav>
  );
}
