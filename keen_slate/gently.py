"""Imported first where heavy work is made ready: from here on, light requests go first."""

import os

os.nice(int(os.environ.get("KEEN_SLATE_NICE", "15")))
