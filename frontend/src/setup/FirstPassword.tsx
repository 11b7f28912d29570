/** A user name and a new password: shown this once, until somebody says that they have it. */
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";
import { TEXTS } from "./texts";

export function FirstPassword({ made, onClose }: { made: Schema["NewAccountShape"]; onClose: () => void }) {
  return (
    <Modal title={TEXTS.aNewPassword} narrow onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-lg">
        <dt className="text-quiet">{TEXTS.userName}</dt>
        <dd className="font-bold break-all">{made.username}</dd>
        <dt className="text-quiet">{TEXTS.password2}</dt>
        <dd className="font-bold break-all">{made.password}</dd>
      </dl>
      <p className="text-ink-soft">{TEXTS.itIsShownThisOnce}</p>
      <div className="flex justify-end">
        <Button look="main" big onClick={onClose}>
          {TEXTS.iHaveIt}
        </Button>
      </div>
    </Modal>
  );
}
