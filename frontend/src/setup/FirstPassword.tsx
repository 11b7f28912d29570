/** A user name and a new password: shown this once, until somebody says that they have it. */
import type { Schema } from "../api/client";
import { Button } from "../ui/Button";
import { Modal } from "../ui/Modal";

export function FirstPassword({ made, onClose }: { made: Schema["NewAccountShape"]; onClose: () => void }) {
  return (
    <Modal title="A new password" narrow onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-lg">
        <dt className="text-quiet">User name</dt>
        <dd className="font-bold break-all">{made.username}</dd>
        <dt className="text-quiet">Password</dt>
        <dd className="font-bold break-all">{made.password}</dd>
      </dl>
      <p className="text-ink-soft">It is shown this once: write it down or hand it over now. The old one no longer works, and whoever was signed in with it is signed out.</p>
      <div className="flex justify-end">
        <Button look="main" big onClick={onClose}>
          I have it
        </Button>
      </div>
    </Modal>
  );
}
