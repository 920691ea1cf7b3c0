"""Buying: what was chosen for it, what to buy in which packs, and what each finish costs."""

from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Response

from lumso.core.buying.cost import Cost
from lumso.core.buying.purse import Purse
from lumso.core.buying.worked import FinishCost
from lumso.services import buying
from lumso.services.buying import ChoiceOut, ListOut, PurseOut

from .context import Here, IfMatch, Key, read_revision
from .replies import file_reply, pdf_reply
from .workers import BesideIt

router = APIRouter(tags=["buying"])


@router.get("/buying/purse")
def get_purse(here: Here, response: Response) -> PurseOut:
    """What was chosen for buying."""
    made, revision = buying.purse_now(here)
    response.headers["ETag"] = f'"{revision}"'
    return made


@router.put("/buying/purse")
def put_purse(purse: Purse, here: Here, response: Response, if_match: IfMatch, key: Key) -> Purse:
    """Choose the currency, rates, prices, bundles and jobs to buy for."""
    response.headers["ETag"] = f'"{buying.choose(purse, read_revision(if_match), key, here)}"'
    return purse


@router.get("/buying/list")
async def get_list(here: Here, beside: BesideIt) -> ListOut:
    """What to buy for the chosen jobs, in the cheapest packs, aisle by aisle; and what was bought."""
    return await buying.shopping_list(here, beside)


@router.get("/buying/choices")
async def get_choices(here: Here, beside: BesideIt, key: Annotated[str, Query(max_length=200)]) -> list[ChoiceOut]:
    """The ways to cover one line that none of the others beats in money, in what is over and in how many packs."""
    return await buying.ways_to_cover(key, here, beside)


FILES: dict[int | str, dict[str, Any]] = {200: {"content": {"text/csv": {}, "text/plain": {}, "application/pdf": {}}}}


@router.get("/buying/list.{kind}", response_class=Response, responses=FILES)
async def get_list_file(kind: Literal["csv", "txt", "pdf"], here: Here, beside: BesideIt,
                        paper: Literal["a4", "letter"] = "a4") -> Response:  # fmt: skip
    """The list to take along: as a spreadsheet, as plain text, or to print and tick."""
    content = await buying.list_file(kind, paper, here, beside)
    if isinstance(content, bytes):
        return pdf_reply(content, "Shopping list")
    media = "text/csv" if kind == "csv" else "text/plain"
    return file_reply(content, f"{media}; charset=utf-8", f"lumso-shopping.{kind}")


@router.get("/jobs/{job_id}/cost", tags=["costs"])
def get_cost(job_id: str, here: Here) -> Cost:
    """What a job costs: each line with its working, and together the least it can be sold for."""
    return buying.cost_of(job_id, here)


@router.get("/jobs/{job_id}/cost/finishes", tags=["costs"])
async def get_finish_costs(job_id: str, here: Here, beside: BesideIt,
                           zone: Annotated[str, Query(max_length=80)]) -> list[FinishCost]:  # fmt: skip
    """What each finish that a zone's ground takes would cost on it, in money, hours and days."""
    return await buying.costs_of_finishes(job_id, zone, here, beside)
