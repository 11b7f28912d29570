/** Typing or pasting an outline, over the template. */
import { Modal } from "../ui/Modal";
import { OutlineEditor } from "./OutlineEditor";
import { OUTLINE } from "./outlineTexts";

interface Props {
  groupId: number;
  text: string;
  section: number | null;
  onClose: () => void;
}

export function OutlineDialog({ groupId, text, section, onClose }: Props) {
  return (
    <Modal title={OUTLINE.title} wide onClose={onClose}>
      <OutlineEditor groupId={groupId} text={text} section={section} onDone={onClose} onCancel={onClose} />
    </Modal>
  );
}
