#!/usr/bin/env python3
"""Averages squares of pixels of a ZIP-compressed half-float RGB OpenEXR file, in linear light: shrink.py IN FACTOR OUT."""

import struct
import sys
import zlib

import numpy

LINES = 16  # in one ZIP block


def read(path):
    data = open(path, "rb").read()
    at, fields = 8, {}
    while data[at]:
        name = data[at : data.index(0, at)]
        at += len(name) + 1
        kind = data[at : data.index(0, at)]
        at += len(kind) + 1
        (size,) = struct.unpack("<i", data[at : at + 4])
        fields[name.decode()] = data[at + 4 : at + 4 + size]
        at += 4 + size
    if fields["compression"] != b"\3" or fields["channels"][::18][:3] != b"BGR":
        raise SystemExit(f"{path}: expected half-float RGB with ZIP compression")
    left, top, right, bottom = struct.unpack("<4i", fields["dataWindow"])
    width, height = right - left + 1, bottom - top + 1
    blocks = (height + LINES - 1) // LINES
    rows = []
    for offset in struct.unpack(f"<{blocks}q", data[at + 1 : at + 1 + 8 * blocks]):
        line, size = struct.unpack("<ii", data[offset : offset + 8])
        count = min(LINES, height - (line - top))
        packed = data[offset + 8 : offset + 8 + size]
        raw = 6 * width * count
        if size < raw:
            deltas = numpy.frombuffer(zlib.decompress(packed), numpy.uint8).astype(numpy.int64)
            deltas[1:] -= 128
            ordered = numpy.cumsum(deltas).astype(numpy.uint8)
            plain = numpy.empty(raw, numpy.uint8)
            plain[0::2], plain[1::2] = ordered[: (raw + 1) // 2], ordered[(raw + 1) // 2 :]
            packed = plain.tobytes()
        rows.append(numpy.frombuffer(packed, "<f2").reshape(count, 3, width))
    return numpy.concatenate(rows).astype(numpy.float64).transpose(0, 2, 1)


def write(path, image):
    height, width, _ = image.shape
    window = struct.pack("<4i", 0, 0, width - 1, height - 1)
    channels = b"".join(name + b"\0" + struct.pack("<iB3xii", 1, 0, 1, 1) for name in (b"B", b"G", b"R")) + b"\0"
    head = struct.pack("<ii", 20000630, 2)
    for name, kind, value in (
        ("channels", "chlist", channels),
        ("compression", "compression", b"\3"),
        ("dataWindow", "box2i", window),
        ("displayWindow", "box2i", window),
        ("lineOrder", "lineOrder", b"\0"),
        ("pixelAspectRatio", "float", struct.pack("<f", 1)),
        ("screenWindowCenter", "v2f", struct.pack("<ff", 0, 0)),
        ("screenWindowWidth", "float", struct.pack("<f", 1)),
    ):
        head += f"{name}\0{kind}\0".encode() + struct.pack("<i", len(value)) + value
    blocks = []
    for line in range(0, height, LINES):
        plain = numpy.frombuffer(image[line : line + LINES].transpose(0, 2, 1).astype("<f2").tobytes(), numpy.uint8)
        ordered = numpy.concatenate((plain[0::2], plain[1::2])).astype(numpy.int64)
        ordered[1:] = ordered[1:] - ordered[:-1] + 128
        packed = zlib.compress(ordered.astype(numpy.uint8).tobytes(), 9)
        packed = packed if len(packed) < len(plain) else plain.tobytes()
        blocks.append(struct.pack("<ii", line, len(packed)) + packed)
    offset = len(head) + 1 + 8 * len(blocks)
    table = b""
    for block in blocks:
        table += struct.pack("<q", offset)
        offset += len(block)
    with open(path, "wb") as file:
        file.write(head + b"\0" + table + b"".join(blocks))


def main():
    source, factor, target = sys.argv[1], int(sys.argv[2]), sys.argv[3]
    image = read(source)
    height, width, _ = image.shape
    square = image.reshape(height // factor, factor, width // factor, factor, 3)
    write(target, square.mean(axis=(1, 3)))


main()
