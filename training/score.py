"""Depth against exact depth, after the best scale and shift in inverse distance."""

import numpy as np
from scipy.stats import rankdata


def aligned(found, exact):
    x, y = found.ravel(), exact.ravel()
    scale = max(0.0, np.cov(x, y)[0, 1] / (x.var() + 1e-12))
    return scale * found + (y.mean() - scale * x.mean())


def scores(found, exact):
    largest = np.percentile(exact, 99)
    near_enough = exact > 0.03 * largest
    ratio = exact[near_enough] / np.maximum(aligned(found, exact), 0.02 * largest)[near_enough]
    flat = found.std() < 1e-9
    order = 0.0 if flat else np.corrcoef(rankdata(found.ravel()), rankdata(exact.ravel()))[0, 1]
    return {
        "absrel": float(np.abs(1 / ratio - 1).mean()),
        "within": float((np.maximum(ratio, 1 / ratio) < 1.25).mean()),
        "order": float(order),
    }


def mean(all_scores):
    return {key: float(np.mean([s[key] for s in all_scores])) for key in all_scores[0]}


def told(s):
    return " ".join("%s %.3f" % item for item in s.items())
