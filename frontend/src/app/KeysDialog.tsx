/** The keys of the view that is open, and those of every view. */
import { Modal } from "../ui/Modal";
import { useLetterKeys } from "../ui/keys";
import { KEYS } from "./dialogTexts";
import { helpOf } from "./helpTexts";

export function KeysDialog({ view, student, onClose }: { view: string; student: boolean; onClose: () => void }) {
  const letters = useLetterKeys();
  const own = KEYS.of[view];
  const help = helpOf(view, student);
  return (
    <Modal title={KEYS.title} onClose={onClose} narrow read>
      {help && <p>{help}</p>}
      {own && <Table title={own.title} keys={own.keys} letters={letters} />}
      <Table title={KEYS.everywhere.title} keys={KEYS.everywhere.keys} letters={letters} />
      <p className="text-ink-soft">{letters ? KEYS.canBeOff : KEYS.areOff}</p>
    </Modal>
  );
}

function Table({ title, keys, letters }: { title: string; keys: readonly (readonly [string, string])[]; letters: boolean }) {
  return (
    <table className="w-full text-left">
      <caption className="pb-1 text-left font-bold">{title}</caption>
      <tbody>
        {keys.map(([key, does]) => (
          <tr key={key} className={`border-t border-line ${!letters && key.length === 1 ? "text-quiet line-through" : ""}`}>
            <th scope="row" className="w-40 py-1.5 pr-3 align-top font-normal">
              {key.split(" ").map((one) => (
                <kbd key={one} className="mr-1 rounded-sm border border-control bg-ground px-1.5 text-sm">
                  {one}
                </kbd>
              ))}
            </th>
            <td className="py-1.5">{does}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
