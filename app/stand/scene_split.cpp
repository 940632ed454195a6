// The split on the stand: the pull, the pieces drawn apart, the plane with its handle, boards and brushes.
#include <algorithm>
#include <cmath>

#include "app/stand/scene_parts.hpp"

namespace jig::app {
namespace {

constexpr float kShownTint = 0.45F;  // of tape yellow in show surface

QColor mixed(const QColor& a, const QColor& b, float share) {
    const auto one = [&](float x, float y) { return x + share * (y - x); };
    return QColor::fromRgbF(one(a.redF(), b.redF()), one(a.greenF(), b.greenF()), one(a.blueF(), b.blueF()));
}

/// Boards in place, with their dowels' number left to the figures, and a leg under every support.
void add_boards(Scene& s, const split::Findings& split, const Upright& up, const Ink& k) {
    const auto ply = hatch_ground(Hatch::ply_wood, k);
    const double bench = s.bounds.low.z();
    for (const auto& board : split.boards) {
        add_shape(s, board.surface, up, 0, 0, [&](std::size_t, QColor& c, Pattern& p) {
            c = ply;
            p = Pattern::grain;
            return true;
        });
        for (const auto& support : board.supports) {
            const Point top = up(support.at), foot(top.x(), top.y(), bench);
            if (support.height > 0) s.lines.push_back({{top, foot}, k.clay, 1.2, false});
        }
    }
}

/// What can be painted: show surface always, faces to a piece where the seams are searched for.
void add_brushes(Scene& s, const Job& job, const split::Findings& split, const Ink& k) {
    s.brushes.push_back({"show surface", Paint::show, Point::UnitZ(), k.tape});
    s.brushes.push_back({"plain again", Paint::plain, Point::UnitZ(), k.faint});
    if (job.split.way != SplitWay::search) return;
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i)
        s.brushes.push_back({"give to " + QString::fromStdString(split.facts[i].name), Paint::given,
                             split.set.pieces[i].direction, piece_colour(i, k)});
}

}  // namespace

void add_pull(Scene& s, const Findings& f, const Upright& up, const Ink& k, const Wording& w) {
    const auto& split = *f.split;
    const double reach = 0.35 * (s.bounds.high - s.bounds.low).head<2>().maxCoeff();
    Point top = (s.bounds.low + s.bounds.high) / 2;
    top.z() = s.bounds.high.z();
    add_arrow(s, top, Point(0, 0, reach), "pull", k);
    for (const auto& line : split.zero_lines) add_line(s, line, up, Point::Zero(), k.tape, 2.5);
    // Where the best pull locks something, the next best are drawn too, fainter, with what they
    // lock.
    const bool open_question = split.map.locks > 1e-4 * split.moulded_area;
    for (std::size_t i = 1; open_question && i < split.candidates.size(); ++i) {
        const auto& other = split.candidates[i];
        const Point way = up(other.direction), half = (s.bounds.high - s.bounds.low) / 2;
        const Point from =
            (s.bounds.low + s.bounds.high) / 2 + (half.cwiseProduct(way).norm() + 0.1 * reach) * way;
        s.lines.push_back({{from, from + 0.6 * reach * way}, k.faint, 1.0, true});
        s.labels.push_back(
            {from + 0.6 * reach * way,
             QString("locks %1").arg(QString::fromStdString(show(Kind::area, other.locks, w)))});
    }
}

/// Pieces in inks of their own, drawn apart along their pulls round the part.
void add_pieces(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& stone, const View& view) {
    const auto& split = *f.split;
    const double size = (s.bounds.high - s.bounds.low).maxCoeff(), away = 0.6 * size * view.apart;
    const QColor shown = mixed(stone, k.tape, kShownTint);
    const auto from_part = s.corners.size();
    add_shape(s, f.shape->mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
        const bool show = face < split.show.size() && split.show[face];
        c = show ? shown : stone;
        p = show ? Pattern::grain : Pattern::plain;
        return true;
    });
    s.surfaces.push_back({from_part, s.corners.size(), Point::Zero()});
    auto box = s.bounds;
    for (std::size_t i = 0; i < split.set.pieces.size(); ++i) {
        const auto& piece = split.set.pieces[i];
        const Point way = up(piece.direction), move = (0.004 * size + away) * way;
        const auto first = s.corners.size();
        add_shape(s, piece.mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
            const auto r = piece.map.faces[face];
            const auto& show = split.facts[i].show;
            const bool is_shown = face < show.size() && show[face];
            c = is_shown ? mixed(piece_colour(i, k), k.tape, kShownTint) : piece_colour(i, k);
            p = r == Release::locks   ? Pattern::crosses
                : r == Release::drags ? Pattern::dots
                : is_shown            ? Pattern::grain
                                      : Pattern::plain;
            return true;
        });
        Point middle = Point::Zero();
        double count = 0;
        Point low = Point::Constant(1e30), high = -low;
        for (auto c = first; c < s.corners.size(); ++c) {
            auto& corner = s.corners[c];
            corner.x += static_cast<float>(move.x());
            corner.y += static_cast<float>(move.y());
            corner.z += static_cast<float>(move.z());
            const Point at(static_cast<double>(corner.x), static_cast<double>(corner.y),
                           static_cast<double>(corner.z));
            middle += at;
            ++count;
            low = low.cwiseMin(at);
            high = high.cwiseMax(at);
        }
        if (count == 0) continue;
        s.surfaces.push_back({first, s.corners.size(), move});
        middle /= count;
        box.low = box.low.cwiseMin(low);
        box.high = box.high.cwiseMax(high);
        // The arrow starts where the piece ends along its way.
        double end = -1e30;
        for (int corner = 0; corner < 8; ++corner) {
            const Point q(corner & 1 ? high.x() : low.x(), corner & 2 ? high.y() : low.y(),
                          corner & 4 ? high.z() : low.z());
            end = std::max(end, way.dot(q));
        }
        const Point from = middle + (end - way.dot(middle)) * way, tip = from + 0.22 * size * way;
        box.low = box.low.cwiseMin(tip);
        box.high = box.high.cwiseMax(tip);
        add_arrow(s, from, tip - from, QString::fromStdString(split.facts[i].name), k);
    }
    for (const auto& line : split.set.seams) add_line(s, line, up, Point::Zero(), k.ink, 2.5);
    add_boards(s, split, up, k);
    add_brushes(s, job, split, k);
    s.bounds = box;
    s.comes_apart = true;
    s.legend = "arrows: pulls    dotted: drags    crossed: locks    dark line: seam    ply: parting board";
    if (!split.show.empty()) s.legend += "    yellow grain: show surface";
}

/// The plane of a split with the travel of its handle.
void add_plane(Scene& s, const Job& job, const Upright& up) {
    const Point normal =
                    up(Point(job.split.plane_normal[0], job.split.plane_normal[1], job.split.plane_normal[2]))
                        .normalized(),
                at = up(Point(job.split.plane_at[0], job.split.plane_at[1], job.split.plane_at[2]));
    if (!normal.allFinite()) return;
    const auto frame = frame_across(normal);
    double low = 1e30, high = -1e30, reach = 0;
    const Point middle = (s.bounds.low + s.bounds.high) / 2;
    for (int corner = 0; corner < 8; ++corner) {
        const Point q(corner & 1 ? s.bounds.high.x() : s.bounds.low.x(),
                      corner & 2 ? s.bounds.high.y() : s.bounds.low.y(),
                      corner & 4 ? s.bounds.high.z() : s.bounds.low.z());
        low = std::min(low, normal.dot(q));
        high = std::max(high, normal.dot(q));
        reach = std::max({reach, std::abs(frame.u.dot(q - middle)), std::abs(frame.v.dot(q - middle))});
    }
    reach *= 1.12;
    s.plane_at = middle + (normal.dot(at) - normal.dot(middle)) * normal;
    s.plane_low = middle + (low - normal.dot(middle)) * normal;
    s.plane_high = middle + (high - normal.dot(middle)) * normal;
    s.plane = {s.plane_at + reach * (frame.u + frame.v), s.plane_at + reach * (frame.v - frame.u),
               s.plane_at - reach * (frame.u + frame.v), s.plane_at + reach * (frame.u - frame.v)};
    s.has_plane = true;
}

std::array<double, 3> plane_dragged_to(const Job& job, const Findings& f, double share) {
    const auto& n = job.split.plane_normal;
    const Point normal = Point(n[0], n[1], n[2]).normalized();
    double low = 1e30, high = -1e30;
    for (const auto& t : f.shape->mesh.triangles) {
        for (const auto i : t) {
            low = std::min(low, normal.dot(f.shape->mesh.points[i]));
            high = std::max(high, normal.dot(f.shape->mesh.points[i]));
        }
    }
    const Point at(job.split.plane_at[0], job.split.plane_at[1], job.split.plane_at[2]);
    const double inside = low + std::clamp(share, 0.01, 0.99) * (high - low);
    const Point moved = at + (inside - normal.dot(at)) * normal;
    return {moved.x(), moved.y(), moved.z()};
}

}  // namespace jig::app
