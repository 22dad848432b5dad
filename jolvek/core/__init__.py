"""The computation: pure functions and frozen dataclasses in SI. No Flask, no SQL, no files, no
clock.
"""
