"""What a shop does, one function for each act: it opens one transaction, checks inside it, writes,
and gives back what came of it. No Flask, no HTML, no files but the shop's own.

A form that two people may have open hands in `edit`: it is given what stands in the database by
then, within the transaction, and returns what is to be kept.
"""

from jolvek.shop import answers as answers
from jolvek.shop import boats as boats
from jolvek.shop import care as care
from jolvek.shop import catalogue as catalogue
from jolvek.shop import enquiries as enquiries
from jolvek.shop import exchange as exchange
from jolvek.shop import handovers as handovers
from jolvek.shop import letters as letters
from jolvek.shop import offers as offers
from jolvek.shop import owners as owners
from jolvek.shop import people as people
from jolvek.shop import settings as settings
from jolvek.shop import setups as setups
from jolvek.shop import trials as trials
from jolvek.shop.acting import By as By
