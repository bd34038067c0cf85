"""The one random source of a scene, and the colours that are drawn from it."""

import colorsys
import math
import random

LINEAR = 2.2  # colours are chosen as they look and handed to POV-Ray as linear light

# name: (hue, saturation, value) ranges
COLOURS = {
    "any": ((0, 1), (0, 1), (0.1, 1)),
    "grey": ((0, 1), (0, 0.05), (0.05, 0.95)),
    "earth": ((0.03, 0.14), (0.2, 0.7), (0.15, 0.8)),
    "strong": ((0, 1), (0.7, 1), (0.4, 1)),
    "pale": ((0, 1), (0.02, 0.25), (0.7, 1)),
    "dark": ((0, 1), (0, 0.6), (0.02, 0.25)),
    "green": ((0.17, 0.38), (0.35, 0.9), (0.12, 0.7)),
    "leaf": ((0.1, 0.36), (0.4, 0.95), (0.15, 0.75)),
    "skin": ((0.03, 0.08), (0.25, 0.6), (0.25, 0.95)),
    "fur": ((0.04, 0.11), (0.05, 0.7), (0.05, 0.95)),
    "bark": ((0.03, 0.12), (0.05, 0.5), (0.05, 0.5)),
}


class Dice:
    def __init__(self, seed):
        self.source = random.Random(seed)

    def span(self, low, high):
        return self.source.uniform(low, high)

    def log_span(self, low, high):
        return math.exp(self.source.uniform(math.log(low), math.log(high)))

    def near(self, mean, spread):
        return self.source.gauss(mean, spread)

    def count(self, low, high):
        return self.source.randint(low, high)

    def pick(self, *options):
        return self.source.choice(options)

    def weighted(self, weights):
        return self.source.choices(list(weights), list(weights.values()))[0]

    def chance(self, share):
        return self.source.random() < share

    def side(self):
        return self.pick(-1, 1)

    def colour(self, *kinds):
        kind = self.pick(*kinds) if kinds else self.pick("any", "any", "grey", "earth", "strong", "pale", "dark")
        hue, saturation, value = COLOURS[kind]
        seen = colorsys.hsv_to_rgb(self.span(*hue), self.span(*saturation), self.span(*value))
        return tuple(channel**LINEAR for channel in seen)

    def shade(self, colour, amount=0.35):
        """The same colour in other light: brighter or darker as a whole, a little off in each channel."""
        level = self.span(1 - amount, 1 + amount)
        return tuple(max(0, min(1, channel * level * self.span(0.85, 1.15))) for channel in colour)
