"""Rendered training scenes with exact depth.

A scene is a list of POV-Ray items around one camera. Lengths are metres, y is up, the camera looks along +z. Everything
is drawn from one seeded random source, so a seed is a scene. Text between the SURFACE marks is what things look like;
the depth pass replaces it by black and measures distance as the density of a white fog.
"""
