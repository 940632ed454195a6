// The shape of the part's tool face: drawn here by a starter, or a mesh brought in.
#pragma once

#include <array>

#include "core/base/fields.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/stages/shape/starters.hpp"

namespace jig {

enum class ShapeKind { tray, stations, foil, turned, mesh, copied };
template <>
struct Words<ShapeKind> {
    static constexpr std::array all{Word{"tray", "a tray drawn here"},
                                    Word{"stations", "drawn by stations"},
                                    Word{"foil", "a foil"},
                                    Word{"turned", "turned from a profile"},
                                    Word{"mesh", "a file of your own"},
                                    Word{"copied", "copied from a part"}};
};

enum class Upwards { z, z_down, x, x_down, y, y_down };
template <>
struct Words<Upwards> {
    static constexpr std::array all{Word{"z", "as it lies"},          Word{"z_down", "turned over"},
                                    Word{"x", "with its +x side up"}, Word{"x_down", "with its -x side up"},
                                    Word{"y", "with its +y side up"}, Word{"y_down", "with its -y side up"}};
};

enum class ToolFace { outside, inside };
template <>
struct Words<ToolFace> {
    static constexpr std::array all{Word{"outside", "its outside"}, Word{"inside", "its inside"}};
};

enum class FileUnit { mm, cm, m, in };
template <>
struct Words<FileUnit> {
    static constexpr std::array all{Word{"mm", "millimetres"}, Word{"cm", "centimetres"}, Word{"m", "metres"},
                                    Word{"in", "inches"}};
};

namespace shape {

/// A tray stands mouth down on the bench: the outline at z = 0, the crown on top.
struct Tray {
    std::vector<std::array<double, 2>> outline{
        {-0.30, -0.20}, {0.30, -0.20}, {0.30, 0.20}, {-0.30, 0.20}};  ///< m, round the mouth
    double depth = 0.12;        ///< m from mouth to the edge of the crown
    double draft = 0.0524;      ///< rad of the wall
    double edge_radius = 0.03;  ///< m between wall and crown
    double crown = 0.01;        ///< m that the middle stands higher
    bool recess = false;
    double recess_rim = 0.05;    ///< m between edge and recess
    double recess_depth = 0.01;  ///< m
    double facet = 0.012;        ///< m of a facet's edge
    static void fields(auto& c, auto&& v) {
        v("outline", c.outline);
        v("depth", c.depth, 0.005, 5.0);
        v("draft", c.draft, 0.0, 0.8);
        v("edge_radius", c.edge_radius, 0.0, 2.0);
        v("crown", c.crown, 0.0, 2.0);
        v("recess", c.recess);
        v("recess_rim", c.recess_rim, 0.005, 2.0);
        v("recess_depth", c.recess_depth, 0.0, 1.0);
        v("facet", c.facet, 0.001, 0.2);
    }
    bool operator==(const Tray&) const = default;
};

/// How the shape stands on the bench.
struct Placing {
    Upwards up = Upwards::z;
    bool mirror = false;  ///< left for right, across its length
    double scale = 1;
    ToolFace face = ToolFace::outside;  ///< the side that the mould touches
    static void fields(auto& c, auto&& v) {
        v("up", c.up);
        v("mirror", c.mirror);
        v("scale", c.scale, 1e-3, 1e3);
        v("face", c.face);
    }
    bool operator==(const Placing&) const = default;
};

/// What has to be settled before an existing part becomes a plug. Its sections are typed from a contour gauge
/// into the stations.
struct Copying {
    int holes = 0;  ///< openings in the part
    bool holes_blanked = false;
    bool returns_added = false;  ///< flanges and edges that the mould needs past the part's own
    bool draft_accepted = false;
    static void fields(auto& c, auto&& v) {
        v("holes", c.holes, 0, 1000);
        v("holes_blanked", c.holes_blanked);
        v("returns_added", c.returns_added);
        v("draft_accepted", c.draft_accepted);
    }
    bool operator==(const Copying&) const = default;
};

struct Choices {
    ShapeKind kind = ShapeKind::tray;
    Tray tray;
    Stations stations;
    Foil foil;
    Turned turned;
    Copying copying;
    std::string file;  ///< name of the attached mesh
    FileUnit unit = FileUnit::mm;
    double chord = 0.0005;  ///< m that facets may stray from the curved faces of a STEP file
    MendRules mend;
    Placing place;
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("tray", c.tray);
        v("stations", c.stations);
        v("foil", c.foil);
        v("turned", c.turned);
        v("copying", c.copying);
        v("file", c.file);
        v("unit", c.unit);
        v("chord", c.chord, 1e-5, 0.05);
        v("mend", c.mend);
        v("place", c.place);
    }
    bool operator==(const Choices&) const = default;
};

/// Whether the shape is drawn by its stations.
inline bool by_stations(ShapeKind kind) {
    return kind == ShapeKind::stations || kind == ShapeKind::copied;
}

}  // namespace shape
}  // namespace jig
