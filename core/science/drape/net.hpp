// Cloth over a face as a net of pinned threads (docs/methods.md, Drape).
#pragma once

#include <map>
#include <optional>

#include "core/base/progress.hpp"
#include "core/science/drape/slits.hpp"

namespace jig {

struct DrapeRules {
    Point seed = Point::Zero();   ///< where both first threads cross; the place of the face next to it
    Point warp = Point::UnitX();  ///< direction of the warp there
    double cell = 0.01;           ///< m between threads
    double lock = 0.8727;         ///< rad of shear at which the cloth wrinkles
};

struct DrapeNode {
    int i = 0, j = 0;  ///< cells along warp and weft from the seed
    Point at = Point::Zero();
    std::uint32_t face = 0;
    bool outside = false;  ///< past the rim: it only carries the last cells
    double shear = 0;      ///< rad, |90° − angle between the threads|, the mean of its cells
    bool operator==(const DrapeNode&) const = default;
};

/// What the cloth does at one point of the mesh.
struct DrapedPoint {
    bool covered = false;
    Point2 flat = Point2::Zero();  ///< m along warp and weft, on the cloth laid flat
    double shear = 0;              ///< rad
    bool operator==(const DrapedPoint&) const = default;
};

struct Drape {
    std::vector<DrapeNode> nodes;
    struct Cell {
        std::array<std::uint32_t, 4> nodes{};  ///< (i, j), (i + 1, j), (i + 1, j + 1), (i, j + 1)
        double shear = 0;                      ///< rad
        bool operator==(const Cell&) const = default;
    };
    std::vector<Cell> cells;
    /// Of the mesh; behind those, what lies twice: on either side of a seam or a slit.
    std::vector<DrapedPoint> points;
    /// Faces on which the cloth has come round to itself, or beside a slit, and their corners among
    /// `points`: all on one side.
    std::map<std::uint32_t, std::array<std::uint32_t, 3>> seams;
    /// A piece of the line on the face along which the cloth meets itself, edge to edge.
    struct Meeting {
        Point a, b, normal;
        bool operator==(const Meeting&) const = default;
    };
    std::vector<Meeting> meets;
    double seam = 0;       ///< m of them
    double covered = 0;    ///< m² of the face whose corners the net reaches
    double locked = 0;     ///< m² of it sheared past locking
    double flat_area = 0;  ///< m² of the cloth that lies there
    Point2 flat_low = Point2::Zero(), flat_high = Point2::Zero();  ///< m, box of the flat pattern
    double most = 0;  ///< rad, the largest shear of a cell on the face
    Point most_at = Point::Zero();
    std::vector<Point> holes;  ///< places where no thread could be laid though the face goes on
    bool operator==(const Drape&) const = default;
};

/// Both first threads run straight along the face; every other crossing lies one cell along the face from two
/// known ones. The mesh should be no coarser than the cell: `draped` lays it finer where it is. Throws
/// InputError for a warp that has no direction in the face; Cancelled.
Drape drape(const TriangleMesh& mesh, const Topology& topology, const DrapeRules& rules, Progress& progress);

/// Lines along which a cloth is cut before it is laid.
struct ClothCuts {
    Frame frame;
    std::vector<SeenLine> lines;   ///< seen along the frame's third direction; at most kMostSlits
    std::vector<PointPair> edges;  ///< of the mesh, along them, as `scored` has them
};

/// Pieces of one cloth lie at least so far, m, beside each other on it, so that each can be grown.
inline constexpr double kPiecesApart = 3;

/// The same, on either side of a slit as if the other were not there. A slit that parts the face leaves
/// pieces: each begins in its own middle with the same warp, but for that with the seed.
Drape drape(const TriangleMesh& mesh, const ClothCuts& cuts, const DrapeRules& rules, Progress& progress);

/// A face's corners among the points of the drape; none where no cloth lies.
std::optional<std::array<std::uint32_t, 3>> on_cloth(const Drape& drape, const TriangleMesh& mesh,
                                                     std::size_t face);

/// Shear at a place of the mesh, rad; none where no cloth lies.
std::optional<double> shear_at(const Drape& drape, const TriangleMesh& mesh, std::size_t face,
                               const Point& at);

/// Both thread directions on a face, unit tangents; none where no cloth lies.
struct Threads {
    Point warp = Point::Zero(), weft = Point::Zero();
};
std::optional<Threads> threads_on(const Drape& drape, const TriangleMesh& mesh, std::size_t face);
/// The first of them alone.
std::optional<Point> warp_on(const Drape& drape, const TriangleMesh& mesh, std::size_t face);

/// Outline of the flat pattern: the face's rims, and the borders of what is not covered, mapped onto the
/// cloth.
std::vector<std::vector<Point2>> flat_outlines(const Drape& drape, const TriangleMesh& mesh);

}  // namespace jig
