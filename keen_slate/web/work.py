"""Work one problem that is not in any set: what the entry line shows as it is typed."""

from __future__ import annotations

from typing import Any

from apiflask import APIBlueprint

from keen_slate.core.document import work_text, working_view
from keen_slate.core.ways import Ways

from .schemas import WorkIn, WorkingOut

blueprint = APIBlueprint("work", __name__, url_prefix="/api")


@blueprint.post("/work")
@blueprint.input(WorkIn)
@blueprint.output(WorkingOut)
def work_one(json_data: WorkIn) -> dict[str, Any]:
    """Work one problem."""
    return working_view(work_text(json_data.text, Ways.of(json_data.ways), target=json_data.target))
