"""The trade's starting knowledge as data files, each validated when it is loaded.

Adding a recipe, a material or a technique is adding a file (or an entry to one): never code.
"""

from .load import Loaded, load, shipped

__all__ = ["Loaded", "load", "shipped"]
