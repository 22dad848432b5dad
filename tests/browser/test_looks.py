"""The pages that no job of test_jobs.py looks at fit every width and read in both themes."""

import pytest

from tests.browser.looks import fits_and_reads

PAGES = [
    "/",
    "/rules",
    "/patterns",
    "/find?q=boat",
    "/enquiry/2/shortlist",
    "/enquiry/2/by-hand?motor=tallmarrow-o12",
    "/enquiry/2/own",
    "/enquiry/4/side-by-side?by=day&doubt=1",
    "/enquiry/4/day-out?wind=18&from=9:30&all=1",
    "/enquiry/4/fitting",
    "/enquiry/4/fitting?tab=sheet",
    "/shelf/",
    "/shelf/motors/item/tallmarrow-o12",
    "/shelf/motors/compare",
    "/shelf/import",
]


@pytest.mark.parametrize("path", PAGES)
def test_a_page_fits_and_reads(page, fitted_server, path):
    fits_and_reads(page, fitted_server + path)
