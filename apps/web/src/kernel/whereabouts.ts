/**
 * Notes where the person is. The answer tells whether they are still there: the address says so at once, while on a slow
 * tablet a page is still drawn for a while after it was left.
 */
export function staysHere(): () => boolean {
  const address = window.location.href;
  return () => window.location.href === address;
}
