"""How a rider loads by hand: heavy things first, low and near the middle, left and right in turn (practice)."""

import numpy as np

from omnifer.core.load.problem import LEVER, Placing, Problem


def hand_order(problem: Problem) -> Placing:
    """Each thing, heaviest first, goes into the lowest and most central bag that takes it; of a pair, the lighter side."""
    p = problem
    x, food = p.pinned.copy(), np.zeros(p.limit_g.size, dtype=np.int64)
    place = p.food_cost
    repelled = p.repelled

    def holds() -> bool:
        kg = x.T @ p.mass_g + food[:, None] * p.food_g
        ml = x.T @ p.pressed_ml + food[:, None] * p.food_ml
        rows = p.hard.lever @ kg
        return bool(
            (kg <= p.limit_g[:, None]).all()
            and (ml <= p.brim_ml[:, None]).all()
            and (rows <= p.hard.high[:, None] + LEVER // 2).all()
        )

    def bags() -> list[int]:
        kg = (x.T @ p.mass_g).mean(axis=1)
        return [int(j) for j in np.lexsort((kg, place // 200))]

    for _ in range(10):
        for j in bags():
            if p.food_allowed[j] and not (p.food_repelled & (x[:, j] > 0)).any():
                food[j] += 1
                if holds():
                    break
                food[j] -= 1
    for i in np.argsort(-p.mass_g.max(axis=1), kind="stable"):
        for _ in range(int(p.count[i] - x[i].sum())):
            for j in bags():
                if p.allowed[i, j] and not (repelled[i] & (x[:, j] > 0)).any() and not (food[j] and p.food_repelled[i]):
                    x[i, j] += 1
                    if holds():
                        break
                    x[i, j] -= 1
    return Placing(x, food)
