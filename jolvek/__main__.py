"""`python -m jolvek` is the command line."""

from jolvek.cli import main

main()
