"""What crosses the wire, a module a resource. The OpenAPI document and the front end's types are generated from these
models.

Where a dataclass of the core crosses as it is, it is used as it is. Every model in this package is published once,
under its own name.
"""

from apiflask.schema_adapters import registry

from ..documents import WrittenOnce

registry.register("pydantic", WrittenOnce)  # before any operation is declared with a schema
