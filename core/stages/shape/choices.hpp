// The shape of the part's tool face: a tray drawn here, or a mesh brought in.
#pragma once

#include <array>

#include "core/base/fields.hpp"

namespace jig {

enum class ShapeKind { tray, mesh };
template <>
struct Words<ShapeKind> {
    static constexpr std::array all{Word{"tray", "a tray drawn here"}, Word{"mesh", "a mesh file"}};
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

struct Choices {
    ShapeKind kind = ShapeKind::tray;
    Tray tray;
    std::string file;  ///< name of the attached mesh
    FileUnit unit = FileUnit::mm;
    static void fields(auto& c, auto&& v) {
        v("kind", c.kind);
        v("tray", c.tray);
        v("file", c.file);
        v("unit", c.unit);
    }
    bool operator==(const Choices&) const = default;
};

}  // namespace shape
}  // namespace jig
