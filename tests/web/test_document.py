"""The OpenAPI document is kept: Schemathesis, which somebody else wrote, asks for all that it allows and for what it
does not.
"""

import json
import os
import re
import subprocess
import sys
import tempfile
import unittest
import urllib.error
import urllib.request
from pathlib import Path

from keen_slate.store.demo import load
from tests import support
from tests.support_core import some
from tests.web.test_api import Client
from tools.throw_away import application

# So many examples for each operation that is drawn; where they are asked for by hand, everything that can be counted
# out as well (10 minutes).
BY_HAND = "50" if os.environ.get("KEEN_SLATE_ALL") else ""
EXAMPLES = BY_HAND or "2"
# Counted out in a usual run: some of what is asked, changed, made and printed most.
COUNTED_OUT = (
    "sets", "sets/{set_id}", "sets/{set_id}/examples", "sets/{set_id}/handout", "classes/{class_id}", "preview", "ways",
)  # fmt: skip
# Not every text is a problem: a refusal in words (422) of what has the right form is no fault. Who may ask has a test
# of its own below.
LEFT_OUT = "positive_data_acceptance,ignored_auth"
# Left out: what signs out, and files that it cannot make (their readers have tests of their own).
NOT_ASKED = ("/api/leave", "/api/account/leaving", "/api/account/password", "/api/tables", "/api/account/everything")
# What is sent to see whether it is refused may be too large as well.
REFUSED = ["400", "401", "403", "404", "405", "406", "409", "413", "415", "422"]


def _faults(said):
    """What Schemathesis found, without its lists of warnings."""
    return said.partition("= FAILURES =")[2].partition("= WARNINGS =")[0][:6000] or said[-2000:]


class DocumentTests(unittest.TestCase):
    """Each test works on a throw-away application with the demo data."""

    def check(self, running, *options, known=None):
        """Run it against the application *running*, with *options*; *known* are path parameters by name that it need
        not guess.
        """
        with tempfile.TemporaryDirectory() as directory:
            client = Client(running.server, running.teacher)
            document = client.call("GET", "/api/openapi.json")[1]
            for operations in document["paths"].values():
                for operation in operations.values():
                    del operation["security"]  # it is signed in all the time
            Path(directory, "openapi.json").write_text(json.dumps(document))
            settings = [f"checks.negative_data_rejection.expected-statuses = {json.dumps(REFUSED)}", "[parameters]"]
            settings += [f'"path.{name}" = "{one}"' for name, one in (known or {}).items()]
            Path(directory, "schemathesis.toml").write_text("\n".join(settings))
            (cookie,) = list(client.cookies)
            command = [
                Path(sys.executable).with_name("schemathesis"), "run", "openapi.json", "--url", client.address,
                "-H", f"Cookie: {cookie.name}={cookie.value}", "-H", f"X-CSRF-Token: {client.token}",
                *[said for path in NOT_ASKED for said in ("--exclude-path", path)], "--exclude-checks", LEFT_OUT,
                "--suppress-health-check", "all",
                "--seed", "1", *options,
            ]  # fmt: skip
            done = subprocess.run(
                command, cwd=directory, capture_output=True, text=True, check=False, env={**os.environ, "NO_COLOR": "1"}
            )
        tested = re.search(r"(\d+) generated", done.stdout)
        self.assertTrue(tested and int(tested[1]) > 40, done.stdout[-2000:] + done.stderr[-2000:])
        self.assertEqual(done.returncode, 0, _faults(done.stdout))

    def ids(self, running):
        """One of everything that has an id."""
        client = Client(running.server, running.teacher)
        made = client.call("GET", "/api/sets?place=shelf&search=&start=0")[1]["sets"][0]["id"]
        of_class = client.call("GET", "/api/classes")[1]["classes"][0]["id"]
        found = client.call("GET", f"/api/classes/{of_class}")[1]
        return {
            "set_id": made, "example_id": client.call("GET", f"/api/sets/{made}")[1]["examples"][0]["id"],
            "class_id": of_class, "pupil_id": found["pupils"][0]["id"], "sitting_id": found["sittings"][0]["id"],
            "code": "add-across",
        }  # fmt: skip

    def test_what_is_there_is_asked_and_changed_as_the_document_says(self):
        # Where its known ids take the place of wrong ones it sees no refusal: left out where that is all there is to
        # ask.
        counted = f"^/api/({'|'.join(some(COUNTED_OUT))})$"
        asked = ["--exclude-path-regex", "{number}"] if BY_HAND else ["--include-path-regex", counted]
        with application(load) as running:
            known = self.ids(running)
            self.check(running, "--phases", "coverage", "--exclude-method", "DELETE", *asked, known=known)
            paths = Client(running.server, running.teacher).call("GET", "/api/openapi.json")[1]["paths"]
            drawn = f"^({'|'.join(map(re.escape, some(paths)))})$"
            fuzzing = ("--phases", "fuzzing", "--max-examples", EXAMPLES, "--exclude-method", "DELETE")
            self.check(running, *fuzzing, "--include-path-regex", drawn, known=known)

    def test_what_is_made_on_the_way_is_asked_for_and_removed(self):
        with application(load) as running:
            self.check(running, "--phases", "stateful", "--max-examples", BY_HAND or "20")

    def test_nobody_is_answered_who_is_not_signed_in_unless_it_is_nobodys_own(self):
        server = support.live_server()
        document = json.load(urllib.request.urlopen(f"{server.address}/api/openapi.json"))
        before_the_door = {"/api/way-in", "/api/passkey/options"}
        before_the_door |= {f"/api/provider/{one}" for one in ("options", "sign-in", "join")}  # this server has none
        # What the core knows, which is nobody's own.
        free = {"/api/ways", "/api/ladders", "/api/stories", "/api/building", "/api/misconceptions"}
        for path, operations in document["paths"].items():
            for method, operation in operations.items():
                address = re.sub(r"{\w+_id}", "8bbddfbc-e7ec-4a61-858d-1e7ab6b3b402", path)
                address = re.sub(r"{number}", "0", re.sub(r"{code}", "add-across", address))
                request = urllib.request.Request(
                    server.address + address,
                    method=method.upper(),
                    data=b"{}" if method != "get" else None,
                    headers={"Content-Type": "application/json"},
                )
                try:
                    status = urllib.request.urlopen(request).status
                except urllib.error.HTTPError as error:
                    status = error.code
                if (method == "get" and path in free) or path in before_the_door:
                    continue
                self.assertIn(status, (401, 403, 422), (method, path))
                self.assertIn(str(status), operation["responses"])

    def test_what_cannot_be_done_is_said_before_the_token_is_asked_for(self):
        server = support.live_server()
        for method, path, wanted, allowed in (
            ("PUT", "/api/sets", 405, {"GET", "HEAD", "OPTIONS", "POST"}),
            ("GET", "/api/work", 405, {"OPTIONS", "POST"}),
            ("POST", "/api/nothing", 404, None),
            ("DELETE", "/api/sets/planks", 404, None),
            ("GET", "/assets/nothing.js", 404, None),
        ):
            request = urllib.request.Request(server.address + path, method=method)
            with self.assertRaises(urllib.error.HTTPError) as refused:
                urllib.request.urlopen(request)
            self.assertEqual(refused.exception.code, wanted, (method, path))
            given = refused.exception.headers.get("Allow")
            self.assertEqual(given and {one.strip() for one in given.split(",")}, allowed, (method, path))
