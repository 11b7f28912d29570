/** Why a camera or microphone cannot be used, in words. */
export function devicesProblem(error: unknown, device: "camera" | "microphone"): string {
  const name = error instanceof DOMException ? error.name : "";
  if (name === "NotAllowedError") return `This page may not use the ${device}: it was not allowed.`;
  if (name === "NotFoundError" || name === "OverconstrainedError") return `There is no ${device} on this device.`;
  if (name === "NotReadableError") return `The ${device} is used by another program just now.`;
  return `The ${device} cannot be used on this page.`;
}
