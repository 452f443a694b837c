"""Signed tokens (JWT) and the keys that sign them, by joserfc. Source: RFC 7515 to 7519."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from joserfc import jwk, jwt
from joserfc.errors import BadSignatureError, InvalidKeyIdError, JoseError

from ..documents.language import gettext as _

Claims = Mapping[str, Any]
KeySet = Mapping[str, Any]

ALGORITHM = "RS256"
BITS = 2048


class BadToken(Exception):
    """A token that cannot be trusted; the message says why, in a clause."""


class UnknownKey(BadToken):
    """A token that was signed with a key that is not in the set; a newer set may have it."""


def new_key() -> tuple[str, str]:
    """A new private key: the name by which it is known, and the key as PEM."""
    key = jwk.RSAKey.generate_key(BITS, {"use": "sig", "alg": ALGORITHM}, private=True, auto_kid=True)
    return str(key.kid), key.as_pem(private=True).decode()


def public_keys(private: Iterable[tuple[str, str]]) -> dict[str, list[dict[str, Any]]]:
    """The public parts of private keys, each with its name, as a set that others read (JWKS)."""
    keys = (jwk.RSAKey.import_key(pem, {"kid": kid, "use": "sig", "alg": ALGORITHM}) for kid, pem in private)
    return {"keys": [dict(key.as_dict(private=False)) for key in keys]}


def signed(claims: Claims, kid: str, pem: str) -> str:
    """A token with these claims."""
    key = jwk.RSAKey.import_key(pem, {"kid": kid})
    return jwt.encode({"alg": ALGORITHM, "kid": kid}, dict(claims), key)


def verified(token: str, keys: KeySet) -> dict[str, Any]:
    """The claims of a token that was signed with one of these public keys. Raises BadToken, UnknownKey among it.

    When it was made and until when it holds is not looked at.
    """
    if not keys.get("keys"):
        raise UnknownKey(_("no keys are published by which it could be signed"))
    try:
        known = jwk.KeySet.import_key_set(dict(keys))  # type: ignore[arg-type]
        return dict(jwt.decode(token, known, algorithms=[ALGORITHM]).claims)
    except InvalidKeyIdError:
        raise UnknownKey(_("it is signed with a key that is not among those published")) from None
    except BadSignatureError:
        raise BadToken(_("its signature is wrong")) from None
    except (JoseError, ValueError, TypeError, KeyError):
        raise BadToken(_("it is no signed token that can be read")) from None
