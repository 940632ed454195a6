// A body cut into tiles that a printer has room for.
#pragma once

#include <array>
#include <string>

#include "core/base/progress.hpp"
#include "core/science/mesh/solid.hpp"

namespace jig {

struct TileRules {
    Point room{0.22, 0.22, 0.25};  ///< m that fit the printer, along the frame's u, v and w
    double key_radius = 0.004;     ///< m; 0 for plain faces
    double key_depth = 0.008;      ///< m
    double key_pitch = 0.08;       ///< m between keys of a face, about
    double play = 0.0002;          ///< m
};

struct Tile {
    std::array<int, 3> cell{0, 0, 0};        ///< counted from 0 along u, v and w
    TriangleMesh mesh;                       ///< closed
    double volume = 0;                       ///< m³
    [[nodiscard]] std::string name() const;  ///< "A1-0": letter along u, number along v, layer
    bool operator==(const Tile&) const = default;
};

struct TileSet {
    std::array<int, 3> count{1, 1, 1};
    std::vector<Tile> tiles;
    double face = 0;  ///< m² of joint faces, each once
    double seam = 0;  ///< m of joints on the surface
    int keys = 0;
    bool operator==(const TileSet&) const = default;
};

/// Cuts a closed body by evenly spread planes, as few as the room allows. Keys stand where a face has room
/// for them on both sides. Throws InputError for a room smaller than 10 mm or more than 4000 tiles;
/// Cancelled.
TileSet tiles_of(const TriangleMesh& body, const Frame& frame, const TileRules& rules, Progress& progress);

}  // namespace jig
