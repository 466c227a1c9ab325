"""A linear program in whole and other numbers, gathered column by column and row by row, for HiGHS to solve to proof."""

from collections.abc import Sequence
from dataclasses import dataclass

import highspy
import numpy as np
from numpy.typing import NDArray

FREE = highspy.kHighsInf
Terms = Sequence[tuple[int, float]]
"""Columns of a row with their factors."""


@dataclass(frozen=True)
class Answer:
    """What the solver found: a value for each column, their cost, and what no other answer is below."""

    values: NDArray[np.float64]
    cost: float
    bound: float
    proven: bool


class Program:
    """Columns and rows being gathered; the cost is to be least."""

    def __init__(self) -> None:
        self.cost: list[float] = []
        self.low: list[float] = []
        self.high: list[float] = []
        self.whole: list[bool] = []
        self.rows: list[tuple[Terms, float, float]] = []

    def column(self, cost: float = 0.0, low: float = 0.0, high: float = FREE, whole: bool = False) -> int:
        """A number to be found between two bounds; its index."""
        self.cost.append(cost)
        self.low.append(low)
        self.high.append(high)
        self.whole.append(whole)
        return len(self.cost) - 1

    def row(self, terms: Terms, low: float = -FREE, high: float = FREE) -> None:
        """A sum to be kept between two bounds."""
        self.rows.append((terms, low, high))

    def solver(self) -> highspy.Highs:
        """HiGHS with this program, one thread, so that it answers alike every time."""
        lp = highspy.HighsLp()
        lp.num_col_, lp.num_row_ = len(self.cost), len(self.rows)
        lp.col_cost_ = np.array(self.cost, dtype=float)
        lp.col_lower_, lp.col_upper_ = np.array(self.low, dtype=float), np.array(self.high, dtype=float)
        lp.row_lower_ = np.array([row[1] for row in self.rows], dtype=float)
        lp.row_upper_ = np.array([row[2] for row in self.rows], dtype=float)
        lp.integrality_ = [highspy.HighsVarType.kInteger if w else highspy.HighsVarType.kContinuous for w in self.whole]
        lp.a_matrix_.format_ = highspy.MatrixFormat.kRowwise
        lp.a_matrix_.start_ = np.cumsum([0, *(len(row[0]) for row in self.rows)])
        lp.a_matrix_.index_ = np.array([c for row in self.rows for c, _ in row[0]])
        lp.a_matrix_.value_ = np.array([v for row in self.rows for _, v in row[0]], dtype=float)
        highs = highspy.Highs()
        highs.setOptionValue("output_flag", False)
        highs.setOptionValue("threads", 1)
        highs.passModel(lp)
        return highs

    def solved(self, seconds: float) -> Answer | None:
        """The best answer found in so many seconds; None where there is none."""
        highs = self.solver()
        highs.setOptionValue("time_limit", seconds)
        highs.setOptionValue("mip_rel_gap", 0.0)
        highs.run()
        found, status = highs.getInfo(), highs.getModelStatus()
        proven = status == highspy.HighsModelStatus.kOptimal
        values = np.array(highs.getSolution().col_value)
        if values.size != len(self.cost) or not (proven or status == highspy.HighsModelStatus.kTimeLimit):
            return None
        cost = float(found.objective_function_value)
        bound = cost if proven or not any(self.whole) else float(found.mip_dual_bound)
        return Answer(values, cost, bound, proven)
