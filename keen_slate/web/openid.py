"""The school's own sign-in, spoken with as OpenID Connect Core 1.0 has it: the code flow, with PKCE (RFC 7636) and a
nonce.
"""

from __future__ import annotations

from collections.abc import Mapping, MutableMapping
from dataclasses import dataclass
from typing import Any
from urllib.parse import urlsplit

from cachetools import TTLCache

from keen_slate.core.limits import TITLE_LENGTH
from keen_slate.store.identities import Way, identity_of

_SECONDS = 10  # that the provider may take for an answer
_KEPT = 3600  # seconds that what it says of itself is believed
_LEEWAY = 60  # seconds that its clock may be off
_ALGORITHMS = ["RS256", "PS256", "ES256"]
_LOOPBACK = ("127.0.0.1", "localhost", "::1")
_known: MutableMapping[str, dict[str, Any]] = TTLCache(16, _KEPT)


class ProviderSettingsError(ValueError):
    """What the environment says of the school's own sign-in cannot be used; the sentence says why."""


class ProviderError(RuntimeError):
    """The school's own sign-in does not answer, or not as it should; the sentence says so."""


@dataclass(frozen=True, slots=True)
class Provider:
    """A provider by its *issuer*, what this installation is called there, and what its teachers call it."""

    issuer: str
    client: str
    secret: str
    name: str


@dataclass(frozen=True, slots=True)
class Person:
    """Who came back: what is kept of her, and by what name she knows herself there."""

    identity: str
    name: str


def of_environment(environment: Mapping[str, str]) -> Provider | None:
    """The provider that KEEN_SLATE_OIDC_ISSUER, _CLIENT, _SECRET and _NAME tell of. Raises `ProviderSettingsError`."""
    return provider_of(
        *[environment.get(f"KEEN_SLATE_OIDC_{one}", "") for one in ("ISSUER", "CLIENT", "SECRET", "NAME")]
    )


def provider_of(issuer: str, client: str, secret: str, name: str) -> Provider | None:
    """The provider of these settings; None where there is none of them. Raises `ProviderSettingsError`."""
    if not any((issuer, client, secret, name)):
        return None
    where = urlsplit(issuer)
    if where.scheme != "https" and not (where.scheme == "http" and where.hostname in _LOOPBACK):
        raise ProviderSettingsError("KEEN_SLATE_OIDC_ISSUER is the https:// address of the school's sign-in.")
    if not client or not secret or not name:
        raise ProviderSettingsError(
            "Beside KEEN_SLATE_OIDC_ISSUER stand KEEN_SLATE_OIDC_CLIENT and KEEN_SLATE_OIDC_SECRET, as it gave them, "
            "and KEEN_SLATE_OIDC_NAME: what its teachers call it."
        )
    return Provider(issuer.rstrip("/"), client, secret, name)


def address(provider: Provider, way: Way, back: str) -> str:
    """Where a browser goes to sign in, to come *back* to an address of ours. Raises `ProviderError`."""
    asked = _client(provider, back).create_authorization_url(
        _about(provider)["authorization_endpoint"], state=way.state, nonce=way.nonce, code_verifier=way.verifier
    )
    return str(asked[0])


def who(provider: Provider, way: Way, code: str, back: str) -> Person:
    """Who came back with a *code*, by a token that the provider signed for this way. Raises `ProviderError`."""
    from authlib.oidc.core import CodeIDToken

    about = _about(provider)
    try:
        token = _client(provider, back).fetch_token(
            about["token_endpoint"], code=code, code_verifier=way.verifier, timeout=_SECONDS
        )
        signed = _signed(provider, str(token["id_token"]))
        claims = CodeIDToken(
            signed.claims, signed.header,
            {"iss": {"essential": True, "value": about["issuer"]}, "aud": {"essential": True,
                "value": provider.client}},
            {"nonce": way.nonce, "client_id": provider.client, "access_token": token.get("access_token")},
        )  # fmt: skip
        claims.validate(leeway=_LEEWAY)
        subject = claims["sub"]
        if not isinstance(subject, str) or not 1 <= len(subject) <= 255:  # as the standard has it
            raise ValueError
    except Exception as error:  # whatever it says that is not as it should be lets nobody in
        raise ProviderError(f"{provider.name} did not say who you are.") from error
    named = next((str(claims[one]) for one in ("email", "preferred_username", "name") if claims.get(one)), "")
    return Person(identity_of(provider.issuer, subject), named[:TITLE_LENGTH])


def _client(provider: Provider, back: str) -> Any:
    from authlib.integrations.requests_client import OAuth2Session

    return OAuth2Session(
        provider.client, provider.secret, scope="openid email profile", redirect_uri=back, code_challenge_method="S256"
    )


def _about(provider: Provider) -> dict[str, Any]:
    """What the provider says of itself (OpenID Connect Discovery 1.0), of which nothing is believed that names another
    one.
    """
    found = _asked(provider, f"{provider.issuer}/.well-known/openid-configuration")
    if str(found.get("issuer", "")).rstrip("/") != provider.issuer:
        _known.clear()
        raise ProviderError(f"{provider.name} calls itself something else.")
    return found


def _signed(provider: Provider, token: str) -> Any:
    """The token, if it was signed by a key of the provider; new keys are asked for once."""
    from joserfc import jwt
    from joserfc.jwk import KeySet

    keys = str(_about(provider)["jwks_uri"])
    for again in (False, True):
        if again:
            _known.pop(keys, None)
        try:
            return jwt.decode(token, KeySet.import_key_set(_asked(provider, keys)), algorithms=_ALGORITHMS)  # type: ignore[arg-type]
        except Exception:
            if again:
                raise
    raise AssertionError("one of the two answered or raised")


def _asked(provider: Provider, url: str) -> dict[str, Any]:
    import requests

    if url not in _known:
        try:
            answer = requests.get(url, timeout=_SECONDS, allow_redirects=False)
            answer.raise_for_status()
            _known[url] = dict(answer.json())
        except (requests.RequestException, ValueError, TypeError) as error:
            raise ProviderError(f"{provider.name} does not answer.") from error
    return _known[url]
