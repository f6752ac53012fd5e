"""The X Window System: windows and their facts, guarded keys, selections, a hotkey."""
