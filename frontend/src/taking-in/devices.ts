/** Why a camera or microphone cannot be used, in words. */
import { TEXTS } from "./texts";
export function devicesProblem(error: unknown, device: "camera" | "microphone"): string {
  const name = error instanceof DOMException ? error.name : "";
  if (name === "NotAllowedError") return TEXTS.thisPageMayNotUse({ device });
  if (name === "NotFoundError" || name === "OverconstrainedError") return TEXTS.thereIsNoDeviceOn({ device });
  if (name === "NotReadableError") return TEXTS.theDeviceIsUsedBy({ device });
  return TEXTS.theDeviceCannotBeUsed({ device });
}
