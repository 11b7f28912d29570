/** A key that nothing else has: 13 signs of 0–9 and a–f. Works on addresses without TLS too. */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(7));
  return Array.from(bytes, (one) => one.toString(16).padStart(2, "0"))
    .join("")
    .slice(0, 13);
}
