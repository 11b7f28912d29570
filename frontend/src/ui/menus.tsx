/** What opens under a button: a menu of things to do, a choice of one, a panel. Loaded by ``OnFirstUse``. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions, Menu, MenuButton, MenuItem, MenuItems, Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { ReactElement, ReactNode } from "react";
import type { Face } from "./OnFirstUse";

const BOX = "z-40 rounded-md border border-edge bg-paper text-ink shadow-lg";

interface ActionsProps {
  face: Face;
  anchor: "bottom" | "bottom end";
  /** Of the box that opens. */
  className: string;
  head?: ReactNode;
  items: ReactElement[];
}

/** Things to do; each item is a button or a link of its own. */
export function Actions({ face, anchor, className, head, items }: ActionsProps) {
  return (
    <Menu>
      <MenuButton aria-label={face.label} className={face.className} onPointerDown={face.onNear} onFocus={face.onNear}>
        {face.content}
      </MenuButton>
      <MenuItems anchor={anchor} className={`${BOX} ${className}`}>
        {head}
        {items.map((one) => (
          <MenuItem key={one.key}>{one}</MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}

interface ChoicesProps {
  face: Face;
  value: string;
  options: { value: string; shown: ReactNode }[];
  onChange: (value: string) => void;
}

/** One of several. */
export function Choices({ face, value, options, onChange }: ChoicesProps) {
  return (
    <Listbox value={value} onChange={onChange}>
      <ListboxButton aria-label={face.label} className={face.className}>
        {face.content}
      </ListboxButton>
      <ListboxOptions anchor="bottom start" className={`${BOX} mt-1 max-h-80 max-w-[90vw] min-w-32 py-1`}>
        {options.map((one) => (
          <ListboxOption key={one.value} value={one.value} className="flex min-h-9 cursor-pointer items-center gap-3 px-4 py-1.5 data-focus:bg-today data-selected:font-bold">
            {one.shown}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  );
}

interface PanelProps {
  face: Face;
  /** Of the box that opens. */
  className: string;
  /** As it is opened. */
  onOpen?: () => void;
  children: (close: () => void) => ReactNode;
}

/** Something to read or set. */
export function Panel({ face, className, onOpen, children }: PanelProps) {
  return (
    <Popover>
      <PopoverButton aria-label={face.label} className={face.className} onClick={onOpen}>
        {face.content}
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className={`${BOX} mt-1 flex flex-col text-base ${className}`}>
        {({ close }) => <>{children(close)}</>}
      </PopoverPanel>
    </Popover>
  );
}
