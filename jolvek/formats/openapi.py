"""What a dealer's own site may ask of this shop, as an OpenAPI 3.1 document."""

from __future__ import annotations

from typing import Any

from jolvek.formats.schema import schema

ROOT = "/api/"
PREFIX = f"{ROOT}v1"
PER_MINUTE = 60
PREDICTS = "Speed, power, time and range of one boat with one setup"
MATCHES = "Setups of the shop's catalogue that fit an enquiry, ranked"
ANSWERS = {
    "400": "Not JSON, or not as the schema asks; `error` says which key, what was read, what is"
    " allowed.",
    "401": "No key, or one that is no longer good.",
    "413": "More than is allowed was sent.",
    "429": f"More than {PER_MINUTE} requests in a minute.",
}


def document(version: str) -> dict[str, Any]:
    """The document, with the schemas of the formats inside."""
    return {
        "openapi": "3.1.0",
        "info": {
            "title": "Jolvek for a dealer's own site",
            "version": version,
            "description": "Predictions and matching as the shop's own pages make them. Nothing is"
            " kept of what is sent. Predictions do not replace the builder's plate, the maker's"
            " manual, local rules or licensed practice.",
        },
        "servers": [{"url": PREFIX}],
        "security": [{"key": []}],
        "paths": {
            "/predict": {"post": _operation("predict", PREDICTS, "Setup", "Prediction")},
            "/match": {"post": _operation("match", MATCHES, "Enquiry", "Matched", [_most()])},
        },
        "components": _components(),
    }


def _components() -> dict[str, Any]:
    """How one says who one is, and the schemas."""
    refusal = {"required": ["error"], "properties": {"error": {"type": "string"}}}
    return {
        "securitySchemes": {"key": {"type": "http", "scheme": "bearer"}},
        "schemas": {
            "Setup": _plain(schema("setup")),
            "Enquiry": _plain(schema("enquiry")),
            "Prediction": _object("points", "top_speed_m_s", "findings", "assumed"),
            "Matched": _object("setups", "picks"),
            "Refusal": {"type": "object", **refusal},
        },
    }


def _plain(found: dict[str, Any]) -> dict[str, Any]:
    """A schema without what names the document it was alone in."""
    return {k: v for k, v in found.items() if k not in ("$schema", "$id")}


def _object(*required: str) -> dict[str, Any]:
    return {"type": "object", "required": list(required)}


def _most() -> dict[str, Any]:
    return {
        "name": "most",
        "in": "query",
        "description": "How many setups to list.",
        "schema": {"type": "integer", "minimum": 1, "maximum": 100, "default": 12},
    }


def _operation(
    name: str, summary: str, sent: str, answer: str, more: list[Any] | None = None
) -> dict[str, Any]:
    def of(kind: str) -> dict[str, Any]:
        return {"application/json": {"schema": {"$ref": f"#/components/schemas/{kind}"}}}

    refusals = {k: {"description": v, "content": of("Refusal")} for k, v in ANSWERS.items()}
    return {
        "operationId": name,
        "summary": summary,
        "parameters": more or [],
        "requestBody": {"required": True, "content": of(sent)},
        "responses": {"200": {"description": "The answer.", "content": of(answer)}, **refusals},
    }
