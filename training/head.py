"""The depth head: a small decoder on the features of the subject network's own decoder.

Inputs, as that gives them for a 512x512 picture: f128 (64 channels), f64 (128), f32 (256), f16 (512), f8 (512), each
named by its side, and the matte at 128x128. Output: relative inverse distance at 128x128, larger = nearer.
"""

import torch
from torch import nn
from torch.nn import functional as F

SIDES = (128, 64, 32, 16, 8)
CHANNELS = (64, 128, 256, 512, 512)
WIDTHS = (24, 56, 112, 144, 176)
LEVELS = len(SIDES)


def convolution(inputs, outputs, side=3):
    return nn.Sequential(
        nn.Conv2d(inputs, outputs, side, padding=side // 2, bias=False), nn.BatchNorm2d(outputs), nn.ReLU()
    )


class Level(nn.Module):
    """One size: features reduced to few channels, told where they are in the frame, joined to the coarser level."""

    def __init__(self, k, extra=0):
        super().__init__()
        side, width = SIDES[k], WIDTHS[k]
        self.register_buffer("mean", torch.zeros(1, CHANNELS[k], 1, 1))
        self.register_buffer("deviation", torch.ones(1, CHANNELS[k], 1, 1))
        line = (torch.arange(side) + 0.5) / side * 2 - 1
        place = torch.stack([line[:, None].expand(side, side), line[None].expand(side, side)])
        self.register_buffer("place", place[None].contiguous())
        self.reduce = nn.Conv2d(CHANNELS[k], width, 1)
        self.locate = nn.Conv2d(2 + extra, width, 1, bias=False)
        self.norm = nn.BatchNorm2d(width)
        self.from_coarser = nn.Conv2d(WIDTHS[k + 1], width, 1) if k + 1 < LEVELS else None
        self.refine = convolution(width, width)

    def forward(self, features, coarser, extra=None, dropout=0.0):
        x = ((features - self.mean) / self.deviation).clamp(-6, 6)
        if self.training:
            x = F.dropout2d(x, dropout)
        place = self.place.expand(x.shape[0], -1, -1, -1)
        told = place if extra is None else torch.cat([place, extra], 1)
        z = self.norm(self.reduce(x) + self.locate(told))
        if coarser is not None:
            z = z + F.interpolate(self.from_coarser(coarser), scale_factor=2.0, mode="bilinear", align_corners=False)
        t = F.relu(z)
        return self.refine(t) + t


class Head(nn.Module):
    def __init__(self, dropout=0.15):
        super().__init__()
        self.dropout = dropout
        # the matte is told at the two finest levels
        self.levels = nn.ModuleList([Level(k, extra=1 if k < 2 else 0) for k in range(LEVELS)])
        w8, w16 = WIDTHS[4], WIDTHS[3]
        self.scene = nn.Sequential(nn.Linear(w8, w8), nn.ReLU(), nn.Linear(w8, w8))
        self.wide8, self.wide16 = convolution(w8, w8), convolution(w16, w16)
        self.fine = convolution(WIDTHS[0], WIDTHS[0])
        self.out = nn.Conv2d(WIDTHS[0], 1, 3, padding=1)

    def forward(self, f128, f64, f32, f16, f8, matte):
        t = self.levels[4](f8, None, dropout=self.dropout)
        t = t + self.scene(t.mean((2, 3)))[:, :, None, None]
        t = self.wide8(t) + t
        t = self.levels[3](f16, t, dropout=self.dropout)
        t = self.wide16(t) + t
        t = self.levels[2](f32, t, dropout=self.dropout)
        t = self.levels[1](f64, t, F.avg_pool2d(matte, 2), dropout=self.dropout)
        t = self.levels[0](f128, t, matte, dropout=self.dropout)
        return self.out(self.fine(t) + t)

    @classmethod
    def read(cls, folder, names):
        """Heads that train.py has written."""
        heads = []
        for name in names:
            head = cls()
            head.load_state_dict(torch.load(folder / (name + ".pt"))["head"])
            heads.append(head)
        return Heads(heads)

    def set_statistics(self, k, mean, deviation):
        """Mean and deviation of the features of a level, so that every channel starts alike."""
        self.levels[k].mean.copy_(mean[None, :, None, None])
        self.levels[k].deviation.copy_(deviation[None, :, None, None] + 0.02)


class Readout(nn.Module):
    """A linear map of the features and of the place in the frame, at 32x32, to the logarithm of inverse distance."""

    SIDE, PLACES = 32, 6

    def __init__(self):
        super().__init__()
        count = sum(CHANNELS) + 1
        self.register_buffer("mean", torch.zeros(1, count, 1, 1))
        self.register_buffer("deviation", torch.ones(1, count, 1, 1))
        self.register_buffer("places", self.place().contiguous())
        self.weights = nn.Parameter(torch.zeros(1, count + self.PLACES, 1, 1))

    @classmethod
    def place(cls):
        line = (torch.arange(cls.SIDE) + 0.5) / cls.SIDE * 2 - 1
        x, y = line[None].expand(cls.SIDE, -1), line[:, None].expand(-1, cls.SIDE)
        return torch.stack([torch.ones_like(x), x * x, y, y * y, y**3, x * x * y])[None]

    @classmethod
    def planes(cls, *features):
        return torch.cat([cls.fitted(each) for each in features], 1)

    @classmethod
    def fitted(cls, plane):
        times = int(plane.shape[-1]) / cls.SIDE
        if times >= 1:
            return F.avg_pool2d(plane, int(times)) if times > 1 else plane
        return F.interpolate(plane, scale_factor=1 / times, mode="bilinear", align_corners=False)

    def known(self, *features):
        known = ((self.planes(*features) - self.mean) / self.deviation).clamp(-6, 6)
        return torch.cat([self.places.expand(known.shape[0], -1, -1, -1), known], 1)

    def forward(self, *features):
        return F.conv2d(self.known(*features), self.weights)


def standard(plane):
    """Mean 0 and deviation 1 in each picture."""
    middle = plane.mean((2, 3), keepdim=True)
    return (plane - middle) / ((plane - middle).pow(2).mean((2, 3), keepdim=True).sqrt() + 1e-4)


class Heads(nn.Module):
    """The mean of several heads: their errors differ."""

    def __init__(self, heads):
        super().__init__()
        self.heads = nn.ModuleList(heads)

    def forward(self, *inputs):
        return sum(standard(each(*inputs)) for each in self.heads) / len(self.heads)


class Both(nn.Module):
    """Heads and the readout, averaged. The readout speaks in logarithms."""

    TONE = 0.8  # about the deviation of the logarithms of a scene

    def __init__(self, heads, readout, share):
        super().__init__()
        self.heads, self.readout, self.share = heads, readout, share

    def forward(self, *inputs):
        inverse = standard(torch.exp(self.TONE * standard(self.readout(*inputs))))
        line = F.interpolate(inverse, scale_factor=4.0, mode="bilinear", align_corners=False)
        return (1 - self.share) * standard(self.heads(*inputs)) + self.share * line


class Sure(nn.Module):
    """How sure the depth is, in [0,1]: another linear map of what the readout takes."""

    def __init__(self, readout):
        super().__init__()
        self.readout = readout
        self.weights = nn.Parameter(torch.zeros_like(readout.weights))

    def forward(self, *features):
        return torch.sigmoid(F.conv2d(self.readout.known(*features), self.weights))


class Kin(nn.Module):
    """What each place is like: the principal components of what is known at 64, 32 and 16 pixels, in [0,1]. Two places
    drawn at random are about 1 / REACH apart."""

    SIDE, PARTS, FROM, REACH = 64, 12, (1, 2, 3), 3.0

    def __init__(self, readout):
        super().__init__()
        self.readout = readout
        self.weights = nn.ParameterList([nn.Parameter(torch.zeros(self.PARTS, CHANNELS[k], 1, 1)) for k in self.FROM])
        self.middle = nn.Parameter(torch.zeros(1, self.PARTS, 1, 1))

    def known(self, *features):
        """By level, as the readout takes it."""
        ends = [sum(CHANNELS[:k]) for k in range(LEVELS + 1)]
        known = []
        for k in self.FROM:
            part = slice(ends[k], ends[k + 1])
            known.append(((features[k] - self.readout.mean[:, part]) / self.readout.deviation[:, part]).clamp(-6, 6))
        return known

    @classmethod
    def fitted(cls, plane):
        return F.interpolate(plane, size=(cls.SIDE, cls.SIDE), mode="bilinear", align_corners=False)

    def forward(self, *features):
        parts = [self.fitted(F.conv2d(p, w)) for p, w in zip(self.known(*features), self.weights, strict=True)]
        return ((sum(parts) - self.middle) / self.REACH + 0.5).clamp(0, 1)
