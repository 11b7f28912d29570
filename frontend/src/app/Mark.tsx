/** The mark of the product: a coat on its peg. */
export function Mark({ size = 26 }: { size?: number }) {
  return <img src="/static/mark.svg" alt="" width={size} height={size} />;
}
