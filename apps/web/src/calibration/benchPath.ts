/** Where a bench is found: grinder and group, whether the group is checked, and which of the coffee's recipes is poured. */
export function benchPath(
  grinderId: string,
  groupId: string,
  { check = false, recipeId = null }: { check?: boolean; recipeId?: string | null } = {},
): string {
  const asked = new URLSearchParams({ ...(check ? { check: '1' } : {}), ...(recipeId ? { recipe: recipeId } : {}) });
  const query = asked.toString();
  return `/bench/${grinderId}/${groupId}${query === '' ? '' : `?${query}`}`;
}
