// The meshes of stations, foils and turned shapes.
#pragma once

#include "core/base/fair_curve.hpp"
#include "core/base/progress.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/shape/starters.hpp"

namespace jig::shape {

/// The lines faired through the stations, each over `at`. Where a section was measured, `shares` say how much
/// of each station's outline goes into the section at a place; else it is empty.
struct FairedStations {
    FairCurve width, height, fullness, lift;
    double from, to;
    std::vector<FairCurve> shares;
};
/// Throws InputError for fewer than two stations, for two at one place and for sections without a size.
FairedStations fair(const Stations& stations);

/// A station's outline over its foot from +across to -across as `count` points at even distances, m: across
/// from the middle line and above the foot. One half measured is mirrored. Throws InputError for fewer than
/// three points and for a line without width or height.
Loop station_outline(const Station& station, std::size_t count);

/// Takes a station's width, height and lift from its measured points, and keeps them as they are where it has
/// none.
void size_by_points(Station& station);

/// How far the faired lines stray from what was typed, m: the largest over width, height and lift.
double stray(const Stations& stations, const FairedStations& faired);

/// Open at the foot (mouth down) or whole; ends are closed flat. Outward normals.
TriangleMesh stations_mesh(const Stations& stations, Progress& progress);

/// The foil's section for a chord of 1, anticlockwise seen with the chord along +x and its top along +y. The
/// formula is the four-coefficient thickness form over a two-parabola camber line (Abbott & von Doenhoff
/// 1959, §6.4), its trailing edge opened to `edge` of the chord. Throws InputError for points that make no
/// section.
Loop foil_section(const Foil& foil, double edge, std::size_t points);

/// Root at y = 0, chord along x, top along z, tip at y = span.
TriangleMesh foil_mesh(const Foil& foil, Progress& progress);

/// The profile's own points, closer together where it is smooth.
std::vector<Point2> turned_profile(const Turned& turned);
/// Throws InputError for profiles that cross the axis or have no height.
TriangleMesh turned_mesh(const Turned& turned, Progress& progress);

}  // namespace jig::shape
