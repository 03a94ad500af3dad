export { PoliciesPage } from './PoliciesPage.tsx';
