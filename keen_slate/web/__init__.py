"""The HTTP API and the pages: a Flask application factory, one blueprint a resource."""

from .app import create_app

__all__ = ["create_app"]
