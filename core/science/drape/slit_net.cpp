// A net on either side of slits, piece by piece.
#include <algorithm>

#include "core/base/error.hpp"
#include "core/science/drape/cloth.hpp"
#include "core/science/drape/net.hpp"
#include "core/science/drape/score.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig {
namespace {

/// Pieces of one cloth put together, each beside those before it.
class Together {
  public:
    Together(const Opened& open, Drape& out) : out_(out) { out_.points.resize(open.mesh.points.size()); }

    void add(Drape drape, const MeshPiece& piece) {
        const bool first = out_.nodes.empty();
        const Point2 aside(first ? 0 : out_.flat_high.x() + kPiecesApart - drape.flat_low.x(), 0);
        const auto nodes = static_cast<std::uint32_t>(out_.nodes.size());
        for (auto node : drape.nodes) {
            node.face = piece.faces[node.face];
            out_.nodes.push_back(node);
        }
        for (auto cell : drape.cells) {
            for (auto& n : cell.nodes) n += nodes;
            out_.cells.push_back(cell);
        }
        // Behind the points of the piece, those that lie twice.
        const auto behind = static_cast<std::uint32_t>(out_.points.size());
        const auto own = static_cast<std::uint32_t>(piece.points.size());
        for (std::uint32_t p = 0; p < drape.points.size(); ++p) {
            auto point = drape.points[p];
            point.flat += aside;
            if (p < own)
                out_.points[piece.points[p]] = point;
            else
                out_.points.push_back(point);
        }
        for (const auto& [f, corners] : drape.seams) {
            auto& to = out_.seams[piece.faces[f]];
            for (std::size_t k = 0; k < 3; ++k) {
                const auto c = corners[k];
                to[k] = c == kNoNode ? kNoNode : c < own ? piece.points[c] : behind + (c - own);
            }
        }
        out_.meets.insert(out_.meets.end(), drape.meets.begin(), drape.meets.end());
        out_.holes.insert(out_.holes.end(), drape.holes.begin(), drape.holes.end());
        out_.seam += drape.seam;
        out_.covered += drape.covered;
        out_.locked += drape.locked;
        out_.flat_area += drape.flat_area;
        out_.flat_low = first ? drape.flat_low : Point2(out_.flat_low.cwiseMin(drape.flat_low + aside));
        out_.flat_high = first ? drape.flat_high : Point2(out_.flat_high.cwiseMax(drape.flat_high + aside));
        if (first || drape.most > out_.most) {
            out_.most = drape.most;
            out_.most_at = drape.most_at;
        }
    }

  private:
    Drape& out_;
};

}  // namespace

Scored scored_for_net(const TriangleMesh& mesh, const Frame& frame, const std::vector<SeenLine>& lines,
                      double cell) {
    constexpr double kClose = 0.02;
    return scored(mesh, frame, lines, kClose * cell);
}

Drape drape(const TriangleMesh& mesh, const ClothCuts& cuts, const DrapeRules& rules, Progress& progress) {
    const auto open = opened(mesh, cuts.edges);
    auto pieces = pieces_of(open, nearest_face(open.mesh, rules.seed));
    Drape out;
    Together together(open, out);
    for (std::size_t k = 0; k < pieces.size(); ++k) {
        const auto& piece = pieces[k];
        auto own = rules;
        if (k > 0) own.seed = piece.mesh.centre(middle_face(piece.mesh));
        const auto topology = topology_of(piece.mesh);
        const Sides sides(piece.mesh, cuts.frame, cuts.lines);
        Drape drape;
        try {
            drape = drape_piece(piece.mesh, topology, own, sides, progress);
        } catch (const InputError&) {
            if (k == 0) throw;
            // The warp points straight off it there: up the wall.
            own.warp = cuts.frame.w;
            drape = drape_piece(piece.mesh, topology, own, sides, progress);
        }
        together.add(std::move(drape), piece);
    }
    // Beside a slit a face's corners are those on its own side.
    for (std::uint32_t f = 0; f < mesh.triangles.size(); ++f) {
        if (open.mesh.triangles[f] != mesh.triangles[f]) out.seams.try_emplace(f, open.mesh.triangles[f]);
    }
    return out;
}

}  // namespace jig
