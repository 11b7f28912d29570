"""The peg pictures as plain SVG, for paper and, in one file, for the interface: taken from its icon set.

Run ``.venv/bin/python -m operations.peg_shapes`` after a change of the icon set.
"""

from __future__ import annotations

import json
import subprocess
from pathlib import Path

HOME = Path(__file__).resolve().parents[1]
SPRITE = HOME / "frontend" / "src" / "ui" / "people" / "pegs.svg"
SHAPES = HOME / "coatpeg" / "setup" / "roster" / "peg_shapes.json"
PROGRAM = """
import { readFileSync } from "node:fs";
const names = JSON.parse(readFileSync("src/ui/people/peg-pictures.json", "utf8"));
const found = {};
const read = (name) => {
  const text = readFileSync(`node_modules/lucide-react/dist/esm/icons/${name}.mjs`, "utf8");
  const alias = /from '\\.\\/([a-z0-9-]+)\\.mjs'/.exec(text);
  return text.includes("__iconData = ") || !alias ? text : read(alias[1]);
};
for (const name of names) {
  const text = read(name);
  const node = new Function(`return ${/const __iconData = (\\{[\\s\\S]*?\\n\\});/.exec(text)[1]}`)().node;
  found[name] = node
    .map(([tag, { key, ...rest }]) => `<${tag} ${Object.entries(rest).map(([at, to]) => `${at}="${to}"`).join(" ")}/>`)
    .join("");
}
console.log(JSON.stringify(found, null, 1));
"""


def main() -> None:
    """Write the shapes."""
    done = subprocess.run(
        ["node", "--input-type=module", "-e", PROGRAM],
        cwd=HOME / "frontend",
        check=True,
        capture_output=True,
        text=True,
    )
    shapes: dict[str, str] = json.loads(done.stdout)
    SHAPES.write_text(done.stdout)
    symbols = "\n".join(f'<symbol id="{name}" viewBox="0 0 24 24">{shape}</symbol>' for name, shape in shapes.items())
    SPRITE.write_text(f'<svg xmlns="http://www.w3.org/2000/svg">\n{symbols}\n</svg>\n')


if __name__ == "__main__":
    main()
