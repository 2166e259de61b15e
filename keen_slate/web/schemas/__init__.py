"""What crosses the wire, a module a resource. The OpenAPI document and the front end's types are generated from these models.

Where a dataclass of the core crosses as it is, it is used as it is. Every model in this package is published once, under its own name.
"""
