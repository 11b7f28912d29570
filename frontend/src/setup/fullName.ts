/** A name as it is said. */
export function fullName(one: { family_name: string; given_name: string; family_first: boolean }): string {
  const order = one.family_first ? [one.family_name, one.given_name] : [one.given_name, one.family_name];
  return order.filter(Boolean).join(" ");
}
