// The flange as a surface: from the rim of the moulded face to its own outline.
#pragma once

#include "core/science/mesh/outline.hpp"
#include "core/science/mesh/topology.hpp"
#include "core/stages/edge/choices.hpp"
#include "core/stages/split/findings.hpp"

namespace jig::edge {

/// A turn of more than this at one point, rad, is a corner, not a facet of an arc.
inline constexpr double kCorner = 0.5;

/// A face and the flange that is welded to its rim.
struct Rimmed {
    TriangleMesh mesh;       ///< in the part's axes; outward as the face
    std::vector<int> patch;  ///< by face, 0 for the moulded face, 1 for the flange
    double flange_area = 0;  ///< m²
    bool operator==(const Rimmed&) const = default;
};

/// Puts a flange round `face`: flat areas between its outer rims, seen along frame.w, and `outer`, in
/// triangles of about `spacing` m. Each place of it has the height of the nearest rim (following), or goes
/// down to `foot` within `run` m (flat). Throws InputError where the rim crosses itself seen along the pull
/// or leaves `outer`.
Rimmed rimmed(const TriangleMesh& face, const Frame& frame, const Loops& outer, FlangeLie lie, double foot,
              double run, double spacing);

/// The surface that the laminate lies on: moulded face and flange as one, seen from outside the plug.
struct ToolFace {
    Rimmed rimmed;
    Loops rim;                                        ///< the face's own, seen along the pull
    Frame frame;                                      ///< w is the pull, u the length
    Point low = Point::Zero(), high = Point::Zero();  ///< extents along u, v, w
    int piece = 0;  ///< number of the mould's piece that it is of; 0 of a mould in one
    bool operator==(const ToolFace&) const = default;
};

/// Of a mould in one piece, or of the chosen piece of several, whose rim carries a flange of its own. `outer`
/// is the flange's outside. Throws InputError as `rimmed` does.
ToolFace tool_face(const shape::Findings& shape, const split::Findings& split, const Choices& choices,
                   const Loops& outer);

/// What of it is moulded: the part's face without flange and lands.
TriangleMesh moulded_face(const ToolFace& tool);

/// The moulded face of one piece of several, across whose pull `frame_of` lies.
TriangleMesh moulded_face(const Piece& piece);
Frame frame_of(const Piece& piece);

/// A piece's own boundary, seen along its pull.
Loops rim_of(const Piece& piece);
/// Place in the list of the piece that is chosen by its number, or of the last where fewer came out.
std::size_t chosen_piece(int number, const split::Findings& split);

/// `loops` grown to the mould's sides: `sides.ahead` along the first axis and so on.
Loops stretched(const Loops& loops, const Sides& sides);

}  // namespace jig::edge
