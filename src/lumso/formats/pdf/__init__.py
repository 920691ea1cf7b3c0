"""What is printed: mixing cards, jar labels and the bench sheet. Right in black and white, legible at arm's length."""

from .benchsheet import bench_sheet
from .boardsheet import board_sheet
from .cards import cards
from .daysheet import day_sheet
from .labels import labels
from .page import PAPERS, Paper
from .piecesheet import jar_label, piece_sheet
from .shoppingsheet import shopping_sheet
from .tiled import tiled

__all__ = ["PAPERS", "Paper", "bench_sheet", "board_sheet", "cards", "day_sheet", "jar_label", "labels", "piece_sheet",
           "shopping_sheet", "tiled"]  # fmt: skip
