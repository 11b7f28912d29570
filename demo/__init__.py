"""The demo's made-up world: Larkfield School. Loaded through the same commands that people use."""
