"""Slides turned in depth, seen by a camera in front of the middle of the frame (static/ritornel/player/depth.js,
checked against tests/vectors/depth.json). x goes right, y down, z towards the camera; the slide lies at z = 0.

A positive yaw takes its right side away from the camera, a positive pitch brings its lower side nearer.
"""

import math

from ritornel.core.motion.channels import Values

CAMERA = 2.0
"""How far the camera is from the frame, in lengths of its longer side."""

Homography = tuple[float, float, float, float, float, float, float, float, float]
"""Nine numbers by rows: (x, y, 1) of the slide to (x w, y w, w) of the frame."""


def camera_px(width_px: int, height_px: int) -> float:
    """The camera's distance in px."""
    return CAMERA * max(width_px, height_px)


def in_depth(values: Values) -> bool:
    """Whether a layer is turned in depth at all."""
    return values.yaw != 0 or values.pitch != 0


def homography(values: Values, width_px: int, height_px: int) -> Homography | None:
    """The projection of the slide's points; None where it is seen from behind, and so invisible.

    A point is moved to the hinge, turned (yaw about y, then pitch about x, as in CSS Transforms Level 2), moved back,
    moved by x and y, and projected: with the camera at (w/2, h/2, d) a point (x, y, z) is seen at w/2 + (x - w/2) d /
    (d - z). A slide of 1280 × 720 at yaw 45° about (640, 360, -640) has its left edge at z = 265, where 720 px are seen
    as 803.
    """
    hx, hy, hz = values.hinge or (width_px / 2, height_px / 2, 0.0)
    yaw, pitch = math.radians(values.yaw), math.radians(values.pitch)
    cy, sy, cp, sp = math.cos(yaw), math.sin(yaw), math.cos(pitch), math.sin(pitch)
    # The columns of the turn for (x, y), and where the slide's (0, 0, 0) goes.
    ax, ay, az = cy, sp * sy, -cp * sy
    bx, by, bz = 0.0, cp, sp
    nx, ny, nz = sy, -sp * cy, cp * cy
    ox = hx + values.x - hx * ax - hy * bx - hz * nx
    oy = hy + values.y - hx * ay - hy * by - hz * ny
    oz = hz - hx * az - hy * bz - hz * nz
    d = camera_px(width_px, height_px)
    mx, my = width_px / 2, height_px / 2
    if (mx - ox) * nx + (my - oy) * ny + (d - oz) * nz <= 1e-9:
        return None
    # X = (mx (d - z) + (x - mx) d) / (d - z), with x, y and z linear in the slide's coordinates.
    return (
        ax * d - az * mx,
        bx * d - bz * mx,
        ox * d - oz * mx,
        ay * d - az * my,
        by * d - bz * my,
        oy * d - oz * my,
        -az,
        -bz,
        d - oz,
    )
