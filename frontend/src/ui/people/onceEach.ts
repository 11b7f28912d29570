/** Of those who see the same, since they fill it together, the first; of all others everybody. */
export function onceEach<One extends { together: string }>(people: One[]): One[] {
  const seen = new Set<string>();
  return people.filter(({ together }) => {
    if (!together) return true;
    const first = !seen.has(together);
    seen.add(together);
    return first;
  });
}
