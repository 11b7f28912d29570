"""What is asked: hand-ins as the rules take them, setting one."""
