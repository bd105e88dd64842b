"""The filters, in the order of the judge's table: equal steps are decided by the earlier one."""

from __future__ import annotations

from gentlegate.core.filters.base import Filter, Finding
from gentlegate.core.filters.capitals import CapitalsFilter
from gentlegate.core.filters.links import LinksFilter
from gentlegate.core.kit.filters import Filters

KEYS = ("capitals", "links")

__all__ = ["KEYS", "Filter", "Finding", "build_filters"]


def build_filters(settings: Filters) -> list[Filter]:
    """Every filter with its settings; made once per change of settings."""
    return [CapitalsFilter(settings.capitals), LinksFilter(settings.links)]
