"""Every operation of the API as it may be asked: what is sent with it, and the rows of a teacher that its address may
name.
"""

from __future__ import annotations

import uuid
from datetime import date
from typing import Any

from apiflask import APIFlask
from sqlalchemy.orm import Session

from keen_slate.store.classes import Classes
from keen_slate.store.models import Pupil
from keen_slate.store.shelf import Shelf
from keen_slate.store.sittings import Entered, Sittings
from keen_slate.web import openid
from tests import support

SPEC = {"rungs": {"M1": 1}}
SITTING = {"set_id": "{set_id}", "day": "2026-11-12", "kind": "quiz"}
PUPIL = str(uuid.UUID(int=7))  # of the class that each test begins with
BODIES: dict[str, Any] = {
    "POST /api/work": {"text": "1/2 + 1/3"}, "POST /api/preview": {"text": "1/2 + 1/3"},
    "POST /api/answers": {"text": "_/4 + _/4 = 1"},
    "POST /api/estimate": {"text": "1/2 + 1/3", "estimate": "1"},
    "POST /api/diagnose": {"text": "1/2 + 1/3", "answer": "2/5"}, "POST /api/check": {"text": "1/2 + 1/3",
        "lines": ["2/5"]},
    "POST /api/mend": {"text": "1/2 + 1/3", "code": "add-across"}, "POST /api/building": {"numbers": "1, 2, 3",
        "wanted": "6"},
    "POST /api/building/new": {"level": "wholes", "seed": 1}, "POST /api/sets": {"title": "New"},
    "POST /api/ladders/count": {"spec": SPEC}, "POST /api/ladders": {"spec": SPEC},
    "POST /api/ladders/smallest": {"codes": ["add-across"]},
    "PUT /api/ways": {"house": {}, "version": 1}, "POST /api/ways/undo": {"version": 1},
    "POST /api/ways/redo": {"version": 1},
    "POST /api/starts": {"between": {"first": "F1", "last": "F3", "problems": 3}},
    "POST /api/starts/judge": {"text": "1/2 + 1/3"},
    "POST /api/tables": None, "POST /api/account/everything": None, "POST /api/account/passkeys/options": None,
    "POST /api/account/passkeys": {"name": "x", "credential": {}}, "DELETE /api/account/passkeys/{named}": None,
    "POST /api/passkey/options": None, "POST /api/forgotten": {"address": "nobody@wren.example"},
    "POST /api/passkey/sign-in": {"credential": {}}, "POST /api/leave": None, "POST /api/enter": {"link": "guessed"},
    "POST /api/sign-in": {"address": "sedge@wren.example", "password": "guessed"},
    "PUT /api/account/password": {"address": "sedge@wren.example", "password": "short"},
    "DELETE /api/account/sign-ins": None,
    "DELETE /api/account/sign-ins/{named}": None, "POST /api/account/leaving": {}, "DELETE /api/account/leaving": None,
    "PUT /api/school/ways": {"ways": {}, "version": 1}, "POST /api/school/ways/undo": {"version": 1},
    "POST /api/school/ways/redo": {"version": 1}, "POST /api/school/invitations": {"name": "Yarrow"},
    "DELETE /api/school/invitations/{named}": None, "POST /api/school/teachers/{teacher_id}/links": None,
    "DELETE /api/school/teachers/{teacher_id}": None, "POST /api/invited": {"link": "guessed"},
    "POST /api/join": {"link": "guessed", "name": "Yarrow", "address": "yarrow@wren.example",
        "password": "a long enough one"},
    "POST /api/school/joined": {"link": "guessed"},
    "POST /api/provider/options": None, "POST /api/provider/sign-in": {"code": "guessed", "state": "guessed"},
    "POST /api/provider/join": {"code": "guessed", "state": "guessed", "link": "guessed", "name": "Yarrow"},
    "POST /api/account/identities/options": {}, "POST /api/account/identities": {"code": "guessed", "state": "guessed"},
    "DELETE /api/account/identities/{named}": None,
    "DELETE /api/sets/bin": None,
    "POST /api/sets/bring": {"format": "keen-slate/set", "version": 1, "title": "x",
        "examples": [{"problem": "1/2 + 1/3"}]},
    "PATCH /api/sets/{set_id}": {"version": 1, "title": "x"}, "POST /api/sets/{set_id}/undo": {"version": 1},
    "POST /api/sets/{set_id}/redo": {"version": 1}, "POST /api/sets/{set_id}/examples": {"version": 1,
        "source": "1/2 + 1/5"},
    "POST /api/sets/{set_id}/problems": {"version": 1, "problems": ["1/2 + 1/5"]},
    "POST /api/sets/{set_id}/versions": {"count": 1},
    "POST /api/sets/{set_id}/copies": {"title": "x"}, "PUT /api/sets/{set_id}/place": {"place": "archive"},
    "PUT /api/sets/{set_id}/show": {"shown": True}, "PUT /api/sets/{set_id}/share": {"shared": False},
    "POST /api/colleagues/{teacher_id}/sets/{set_id}/copies": None, "PUT /api/sets/{set_id}/fading": {"version": 1,
        "hides": {}},
    "POST /api/sets/{set_id}/judge": {"text": "1/2 + 1/3"},
    "PATCH /api/sets/{set_id}/examples/{example_id}": {"version": 1, "note": "x"},
    "POST /api/sets/{set_id}/examples/{example_id}/time": {"day": "2030-01-02", "seconds": 3},
    "POST /api/sets/{set_id}/examples/{example_id}/parallel": {"seed": 1},
    "POST /api/stories/read": {"text": "A plank is 3 m long. Alder saws 1 m off."},
    "POST /api/stories/tell": {"text": "1/2 + 1/3"},
    "POST /api/stories/make": {"spec": {"rungs": {"S1": 1}}}, "DELETE /api/stories/scenarios/{code}": None,
    "PUT /api/stories/scenarios/{code}": {"code": "boats", "name": "A boat yard", "doers": ["Reed", "Flax"], "things": [
        {"kind": "doing", "name": "row", "unit": "km", "from": "1/4", "to": 20, "where": "on the lake"}]},
    "POST /api/classes": {"name": "Kestrel", "aliases": ["Moss"]}, "PATCH /api/classes/{class_id}": {"returns": [3]},
    "POST /api/classes/bring": {"format": "keen-slate/class", "version": 1, "name": "Kestrel"},
    "DELETE /api/classes/{class_id}": None,
    "POST /api/classes/{class_id}/pupils": {"aliases": ["Flax"]},
    "PATCH /api/classes/{class_id}/pupils/{pupil_id}": {"here": False},
    "DELETE /api/classes/{class_id}/pupils/{pupil_id}": None, "DELETE /api/sittings/{sitting_id}": None,
    "PATCH /api/sittings/{sitting_id}": {"day": "12 November 2026"},
    "POST /api/sittings/{sitting_id}/read": {"text": "Sedge,1"},
    "PUT /api/sittings/{sitting_id}/answers": {"entries": [{"pupil_id": PUPIL, "number": 0, "written": "5/6"}]},
    "PUT /api/sittings/{sitting_id}/groups": {"moves": {PUPIL: []}},
    "POST /api/sittings/{sitting_id}/sets": {"codes": [], "pupils": 1, "problems": ["1/2 + 1/5"]},
    "POST /api/classes/{class_id}/sets": {"codes": ["add-across"]},
    "POST /api/classes/{class_id}/sittings": SITTING, "POST /api/warm-ups": {"day": "2026-11-12",
        "problems": ["1/2 + 1/5"]},
}  # fmt: skip
QUERIES = {
    "GET /api/today": "?day=2026-11-14",
    "GET /api/ways/shown": "?group=mixed",
    "DELETE /api/sets/{set_id}/examples/{example_id}": "?version=1",
}


def known_provider() -> openid.Provider:
    """A sign-in of a school of which it is known where it is; nobody answers there."""
    provider = openid.Provider("http://127.0.0.1:9", "x", "x", "Fen sign-in")
    about = {"issuer": provider.issuer, "authorization_endpoint": f"{provider.issuer}/authorize"}
    openid._known[f"{provider.issuer}/.well-known/openid-configuration"] = about
    return provider


def operations_of(app: APIFlask) -> list[str]:
    """All operations of the OpenAPI document: method and path."""
    with app.app_context():
        return [
            f"{method.upper()} {path}" for path, methods in app.spec["paths"].items() for method in methods
            if method in ("get", "post", "put", "patch", "delete")
        ]  # fmt: skip


def rows_for(teacher: uuid.UUID) -> dict[str, object]:
    """A set of two examples, and a class with a pupil who has answered in a sitting: what the address of an operation
    may name.
    """
    set_id = support.new_set(teacher, "Planks", ["1/2 + 1/3", "2/3 - 1/6"])
    with Session(support.engine()) as session, session.begin():
        made = Classes(session, teacher).add("Heron", [])
        session.add(Pupil(teacher_id=teacher, id=uuid.UUID(PUPIL), class_id=made.id, alias="Sedge", position=0))
        sat = Sittings(session, teacher).bring(made.id, "Planks", [{"source": "1/2 + 1/3"}], date(2026, 11, 12), "quiz")
        Sittings(session, teacher).enter(sat.id, [Entered(uuid.UUID(PUPIL), 0, "2/5")])
        example_id = Shelf(session, teacher).one_set(set_id).examples[0].id
        return {
            "set_id": set_id, "example_id": example_id, "class_id": made.id, "sitting_id": sat.id, "pupil_id": PUPIL,
            "number": 0,
            "named": "0" * 16, "teacher_id": teacher, "code": "add-across", "index": 0,
        }  # fmt: skip


def asked(operation: str, ids: dict[str, object]) -> tuple[str, str, object]:
    """Method, address and body of an *operation* on the rows that *ids* name."""
    method, path = operation.split(" ")
    body = BODIES.get(operation)
    path += QUERIES.get(operation, "")
    for name, value in ids.items():
        path = path.replace(f"{{{name}}}", str(value))
    if body is SITTING:
        body = body | {"set_id": str(ids["set_id"])}
    return method, path, body
