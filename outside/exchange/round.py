"""Drawings with round things, leaning planes, measured points and other alphabets, as ezdxf writes them, for crates/server/tests/exchange.rs.

What the curves are is ezdxf's own flattening of them, to half a millimetre; of an unclamped spline SciPy's points. One drawing is written as text in the code page of its time,
as UTF-8, and as the binary format.
"""

import json
import pathlib

import ezdxf
import numpy as np
from ezdxf import path
from ezdxf.math import Vec3, closed_uniform_bspline
from scipy.interpolate import BSpline

FOLDER = pathlib.Path(__file__).parent


def curves():
    doc = ezdxf.new("R2000")
    doc.header["$INSUNITS"] = 6
    space = doc.modelspace()
    made = {}

    def on(name, entity):
        entity.dxf.layer = name
        made[name] = entity

    on("arc", space.add_arc((3, 4), 12, 200, 30))
    on("arc seen from below", space.add_arc((3, 4), 5, 20, 110, dxfattribs={"extrusion": (0, 0, -1)}))
    on("small circle", space.add_circle((-9, 2), 0.15))
    on("large circle", space.add_circle((40, 0), 30))
    on("ellipse", space.add_ellipse((-20, 10), major_axis=(8, 3), ratio=0.4))
    on("part of an ellipse", space.add_ellipse((-20, -10), major_axis=(-6, 1), ratio=0.7, start_param=0.5, end_param=4))
    on("ellipse from below", space.add_ellipse((0, -30), major_axis=(7, 2), ratio=0.5, start_param=0.3, end_param=2, dxfattribs={"extrusion": (0, 0, -1)}))
    on("spline", space.add_open_spline([(0, 20), (5, 30), (10, 10), (15, 25), (20, 20), (22, 28)], degree=3))
    closed = space.add_spline()
    closed.apply_construction_tool(closed_uniform_bspline([(0, 50), (6, 55), (12, 50), (9, 44), (3, 44)], order=4))
    on("closed spline", closed)
    on("weighted spline", space.add_rational_spline([(0, 70), (4, 80), (8, 70), (12, 75)], weights=[1, 3, 0.5, 1], degree=2))
    on("bulges", space.add_lwpolyline([(0, 0, 0.4), (10, 0, -0.2), (10, 8, 0), (0, 8, 1)], format="xyb", close=True, dxfattribs={"elevation": 1.5}))
    on("bulges from below", space.add_lwpolyline([(0, 0, 0.4), (10, 0, 0), (10, 8, -0.6)], format="xyb", dxfattribs={"extrusion": (0, 0, -1)}))
    old = space.add_polyline2d([(30, 30), (36, 30), (36, 35)], format="xy", close=True)
    old.vertices[1].dxf.bulge = 0.5
    on("old bulges", old)
    block = doc.blocks.new("TOWER")
    block.add_circle((0, 0), 2, dxfattribs={"layer": "0"})
    placed = space.add_blockref("TOWER", (60, 60), dxfattribs={"layer": "stretched tower", "xscale": 3, "yscale": 1, "rotation": 30})
    made["stretched tower"] = list(placed.virtual_entities())[0]
    # Upright faces: a wall 2.5 m tall, and one whose own axes stand on end.
    space.add_3dface([(70, 0, 0), (74, 3, 0), (74, 3, 2.5), (70, 0, 2.5)], dxfattribs={"layer": "upright face"})
    up = Vec3(1, 0, 0)
    on_end = space.add_lwpolyline([(0, 0), (4, 0), (4, 3), (0, 3)], close=True, dxfattribs={"layer": "outline on end", "extrusion": up, "elevation": 80})
    corners = [list(v)[:3] for v in on_end.vertices_in_wcs()]
    doc.saveas(FOLDER / "round.dxf")
    told = {}
    for name, entity in made.items():
        # ezdxf runs an unclamped spline over all of its knots; SciPy over those that have all their control points.
        if name == "closed spline":
            spline, degree = BSpline(entity.knots, np.array(entity.control_points), 3), 3
            at = np.linspace(entity.knots[degree], entity.knots[len(entity.control_points)], 800)
            told[name] = [[float(axis) for axis in p] for p in spline(at)]
        else:
            told[name] = [[p.x, p.y, p.z] for p in path.make_path(entity).flattening(0.0005)]
    return {"curves": told, "on_end": corners}


def site(encoding=None):
    doc = ezdxf.new("R2000" if encoding else "R2010")
    if encoding:
        doc.encoding = encoding
        doc.header["$DWGCODEPAGE"] = "ANSI_" + encoding[2:]
    doc.header["$INSUNITS"] = 6
    doc.layers.add("Здание")
    space = doc.modelspace()
    space.add_lwpolyline([(0, 0), (12, 0), (12, 9), (0, 9)], close=True, dxfattribs={"layer": "Здание", "thickness": 3})
    space.add_lwpolyline([(1, 1), (4, 1), (4, 3), (1, 3)], close=True, dxfattribs={"layer": "Здание", "thickness": 3})
    space.add_text("Склад", dxfattribs={"insert": (8, 6)})
    space.add_mtext("{\\fArial;Касса}\\P№ 1", dxfattribs={"insert": (2, 2)})
    for number, at in enumerate([(20, 1, 1.25), (21.5, 4, 2.9), (30, -3, -0.4)], 1):
        space.add_point(at, dxfattribs={"layer": "Точки"})
        space.add_text(f"P{number}", dxfattribs={"insert": (at[0] + 0.1, at[1] + 0.1)})
    space.add_text("Вид", dxfattribs={"insert": (100, 100)})
    sheet = doc.layout("Layout1")
    sheet.add_line((0, 0), (297, 0), dxfattribs={"layer": "Frame"})
    return doc


told = curves()
site().saveas(FOLDER / "letters-utf8.dxf")
site("cp1251").saveas(FOLDER / "letters-cp1251.dxf")
site("cp1251").saveas(FOLDER / "letters-binary.dxf", fmt="bin")
nothing = ezdxf.new("R2000")
nothing.modelspace().add_text("Only words")
for x in range(3):
    nothing.modelspace().add_hatch().paths.add_polyline_path([(x, 0), (x + 1, 0), (x + 1, 1)])
nothing.saveas(FOLDER / "words.dxf")
FOLDER.joinpath("round.json").write_text(json.dumps(told, separators=(",", ":")) + "\n")
print({name: len(points) for name, points in told["curves"].items()})
