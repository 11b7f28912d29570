"""What ships with the product is whole: generated files are current, nothing is fetched from elsewhere, links lead somewhere."""

import json
import re
import subprocess
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from coatpeg.core.policy import Action
from coatpeg.web.api import api
from operations import peg_shapes
from operations.install import node_path

HOME = Path(settings.BASE_DIR)


class Shipping(SimpleTestCase):
    def test_the_shapes_on_paper_are_those_of_the_icon_set(self) -> None:
        made = subprocess.run(
            ["node", "--input-type=module", "-e", peg_shapes.PROGRAM],
            cwd=HOME / "frontend",
            env={"PATH": node_path(HOME)},
            capture_output=True,
            text=True,
            check=True,
        )
        self.assertEqual(json.loads(made.stdout), json.loads(peg_shapes.SHAPES.read_text()))

    def test_lock_files_carry_no_address(self) -> None:
        self.assertNotIn('"resolved"', (HOME / "frontend/package-lock.json").read_text())
        for name in ("app", "dev"):
            self.assertNotIn("://", (HOME / f"requirements/{name}.txt").read_text())

    def test_every_requirement_written_by_hand_is_locked(self) -> None:
        for name in ("app", "dev"):
            locked = (HOME / f"requirements/{name}.txt").read_text().lower()
            for line in (HOME / f"requirements/{name}.in").read_text().splitlines():
                if line.startswith("-r"):
                    continue
                package = re.split(r"[~=<>]", line)[0].strip().lower().replace("_", "-")
                self.assertRegex(locked, rf"(?m)^{re.escape(package)}==", f"{package} is not in {name}.txt")

    def test_the_readme_shows_every_screenshot_and_no_other(self) -> None:
        readme = (HOME / "README.md").read_text()
        linked = set(re.findall(r"docs/screenshots/([\w-]+\.png)", readme))
        self.assertEqual(linked, {path.name for path in (HOME / "docs/screenshots").glob("*.png")})
        self.assertLess(len(linked), 20)
        for command in ("./peg demo", "./peg test"):
            self.assertIn(command, readme)

    def test_every_link_of_the_documents_leads_somewhere(self) -> None:
        for name in ("README.md", "ARCHITECTURE.md", "CONTRIBUTING.md", "CHANGELOG.md"):
            for target in re.findall(r"\]\(([^)#]+)\)", (HOME / name).read_text()):
                self.assertTrue((HOME / target).exists(), f"{name}: {target}")

    def test_every_operation_names_an_action_of_the_policy_and_is_described(self) -> None:
        for template, operations in api.get_openapi_schema()["paths"].items():
            for method, operation in operations.items():
                with self.subTest(f"{method} {template}"):
                    self.assertIn(operation["x-action"], Action.__members__)
                    self.assertTrue(operation.get("description"), "the document says what it does")

    def test_two_shapes_never_share_a_name(self) -> None:
        """The second of two shapes of one name would stand for both in the document."""
        found: dict[str, str] = {}
        for path in sorted((HOME / "coatpeg").rglob("*.py")):
            for name in re.findall(
                r"^class (\w+)\((?:\w*Shape|\w+In|Face|Named\w*|PocketSettings)\):", path.read_text(), re.M
            ):
                self.assertNotIn(name, found, f"{path.name} and {found.get(name)}")
                found[name] = path.name
        self.assertGreater(len(found), 60)

    def test_the_interface_names_no_other_host(self) -> None:
        allowed = ("http://www.w3.org/",)
        for path in sorted((HOME / "frontend/src").rglob("*.ts*")):
            if path.name.endswith(".gen.ts"):
                continue
            for address in re.findall(r"https?://[\w./-]+", path.read_text()):
                self.assertTrue(address.startswith(allowed) or "example" in address, f"{path.name}: {address}")
