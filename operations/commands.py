"""The words that ./peg understands."""

from __future__ import annotations

import argparse
from pathlib import Path

HOME = Path(__file__).resolve().parents[1]


def main(words: list[str]) -> int:
    """Do what the words say; returns the exit code."""
    parser = argparse.ArgumentParser(prog="./peg", description="Coat Peg on this machine.")
    commands = parser.add_subparsers(dest="command", required=True)
    demo = commands.add_parser("demo", help="run with the demo world (PEG_PORT sets the port)")
    demo.add_argument("--fresh", action="store_true", help="start the demo world again")
    test = commands.add_parser("test", help="every check and test")
    test.add_argument("labels", nargs="*", help="only these test modules, without the other checks")
    commands.add_parser("bench", help="measure; writes docs/benchmarks.md")
    commands.add_parser("check", help="re-derive everything that is kept and report differences")
    commands.add_parser("shots", help="take the screenshots of the main views")
    commands.add_parser("walk", help="look over every view: themes, sizes, 200 %% size, reflow, spacing, language")
    asked = parser.parse_args(words)
    if asked.command == "demo":
        from operations.serving import demo as run_demo  # noqa: PLC0415 - each command loads only what it needs

        return run_demo(HOME, fresh=asked.fresh)
    if asked.command == "test":
        from operations.testing import run_tests  # noqa: PLC0415

        return run_tests(HOME, asked.labels)
    if asked.command == "bench":
        from operations.benching import bench  # noqa: PLC0415

        return bench(HOME)
    if asked.command == "shots":
        from operations.shots import take_shots  # noqa: PLC0415

        return take_shots(HOME)
    if asked.command == "walk":
        from operations.walking import walk  # noqa: PLC0415

        return walk(HOME)
    from operations.serving import check  # noqa: PLC0415

    return check(HOME)
