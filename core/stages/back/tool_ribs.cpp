// Ribs on their planes, tied to the shell.
#include "core/stages/back/tool_builder.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/triangulate.hpp"

namespace jig::back {

std::uint32_t ToolBuilder::beside(std::uint32_t shell) {
    const auto known = beside_.find(shell);
    if (known != beside_.end()) return known->second;
    const Point p = points()[shell];
    const auto made = add_point(p);
    beside_[shell] = made;
    return made;
}

const std::vector<std::uint32_t>& ToolBuilder::column(std::uint32_t shell) {
    const auto known = columns_.find(shell);
    if (known != columns_.end()) return known->second;
    std::vector<std::uint32_t> out{beside(shell)};
    const Point from = points()[out.front()];
    const double tall = std::max(0.2 * face_.edge, top_of(from) - f_.w.dot(from));
    const int steps = std::max(1, static_cast<int>(std::lround(tall / face_.edge)));
    for (int k = 1; k <= steps; ++k) out.push_back(add_point(from + f_.w * (tall * k / steps)));
    return columns_[shell] = std::move(out);
}

double ToolBuilder::top_of(const Point& p) {
    return c_.kind == BackKind::foam_blocks ? f_.w.dot(p) + std::max(0.02, c_.height) : tool_.level;
}

void ToolBuilder::find_crossings() {
    for (std::uint32_t i = 0; i < shell_points_; ++i) {
        const int a = lined_.on[0][i], b = lined_.on[1][i];
        if (a < 0 || b < 0) continue;
        const auto known = crossing_.find({a, b});
        if (known == crossing_.end() || height(known->second) < height(i)) crossing_[{a, b}] = i;
    }
}

void ToolBuilder::stand_ribs() {
    for (int s = 0; s < 2; ++s) {
        const auto& set = planes_[static_cast<std::size_t>(s)];
        const Point along = s == 0 ? f_.v : f_.u;
        const auto skin = rib_skin(along);
        for (std::size_t p = 0; p < set.at.size(); ++p) {
            progress_.check();
            for (const auto& chain : chains_on(lined_, s, static_cast<int>(p), along))
                stand_rib(chain, along, skin);
        }
    }
    drop_loose_ties();
}

void ToolBuilder::drop_loose_ties() {
    std::vector<char> used(points().size(), 0);
    for (const auto& t : tool_.model.mesh.triangles) {
        for (const auto i : t) used[i] = 1;
    }
    std::erase_if(tool_.model.ties, [&](const Tie& tie) { return !used[tie.a] || !used[tie.b]; });
    const auto gone = [&](std::uint32_t i) { return !used[i]; };
    std::erase_if(tool_.base, gone);
    std::erase_if(ends_, gone);
}

std::uint16_t ToolBuilder::rib_skin(const Point& along) {
    auto& model = tool_.model;
    std::vector<StackPly> plies;
    if (c_.kind == BackKind::egg_crate) {
        const auto& board = need(in_.shop.boards, c_.board, "back board");
        plies.push_back({plate_of(board), 0, board.thickness});
    } else {
        const auto& board = need(in_.shop.boards, c_.foam.board, "back foam");
        auto laid = lay_up(std::vector<Layer>(static_cast<std::size_t>(c_.foam.plies),
                                              {LayerKind::ply, c_.foam.cloth, 0, 0}),
                           in_.shell_found.resin, LayUp::hand, in_.shop, "back cloth");
        plies = plies_of(laid);
        const auto cloth = plies;
        plies.push_back({plate_of(board), 0, c_.foam.wide});
        plies.insert(plies.end(), cloth.rbegin(), cloth.rend());
        cap_ = laminate(cloth);
    }
    model.skins.push_back({laminate(plies), along});
    rib_thickness_ = model.skins.back().laminate.thickness;
    return static_cast<std::uint16_t>(model.skins.size() - 1);
}

void ToolBuilder::stand_rib(const std::vector<std::uint32_t>& chain, const Point& along, std::uint16_t skin) {
    // From crossing to crossing, the pieces of the rib between two columns.
    std::vector<std::size_t> cuts;
    for (std::size_t i = 0; i < chain.size(); ++i) {
        const int a = lined_.on[0][chain[i]], b = lined_.on[1][chain[i]];
        const auto known = crossing_.find({a, b});
        const bool end = i == 0 || i + 1 == chain.size();
        if (end || (known != crossing_.end() && known->second == chain[i])) cuts.push_back(i);
    }
    tie_chain(chain, along);
    for (std::size_t k = 1; k < cuts.size(); ++k) {
        try {
            panel(chain, cuts[k - 1], cuts[k], along, skin);
        } catch (const InputError&) {
            tool_.notes.push_back("a rib is left out where the shell overhangs it");
        }
    }
}

void ToolBuilder::panel(const std::vector<std::uint32_t>& chain, std::size_t from, std::size_t to,
                        const Point& along, std::uint16_t skin) {
    std::vector<std::uint32_t> ring;
    for (auto i = from; i <= to; ++i) ring.push_back(beside(chain[i]));
    const auto right = column(chain[to]), left = column(chain[from]);
    ring.insert(ring.end(), right.begin() + 1, right.end());
    // The other edge, back from right to left.
    const Point a = points()[right.back()], b = points()[left.back()];
    if (c_.kind == BackKind::foam_blocks) {
        for (auto i = to - 1; i > from; --i) {
            const Point p = points()[beside(chain[i])];
            ring.push_back(add_point(p + f_.w * (top_of(p) - f_.w.dot(p))));
        }
    } else {
        const int steps = std::max(1, static_cast<int>(std::lround((b - a).norm() / face_.edge)));
        for (int k = 1; k < steps; ++k) ring.push_back(add_point(a + (b - a) * k / steps));
    }
    const auto edge_from = ring.size() - (c_.kind == BackKind::foam_blocks ? to - from - 1 : 0);
    for (auto i = left.size(); i-- > 1;) ring.push_back(left[i]);
    Loop flat;
    for (const auto i : ring) flat.emplace_back(along.dot(points()[i]), f_.w.dot(points()[i]));
    const auto mesh = filled(flat, face_.edge);
    auto number = ring;
    const Point across = along.cross(f_.w).normalized();
    const double off = across.dot(points()[ring.front()]);
    for (std::size_t i = ring.size(); i < mesh.points.size(); ++i)
        number.push_back(add_point(along * mesh.points[i].x() + f_.w * mesh.points[i].y() + across * off));
    for (const auto& t : mesh.triangles) {
        tool_.model.mesh.triangles.push_back({number[t[0]], number[t[1]], number[t[2]]});
        if (is_sliver(tool_.model.mesh, tool_.model.mesh.triangles.size() - 1, kSliver)) {
            tool_.model.mesh.triangles.pop_back();
            continue;
        }
        tool_.model.skin.push_back(skin);
        tool_.parts.push_back(ToolPart::rib);
    }
    // What a stretched bag presses on: where ribs hold each other up.
    for (const auto& [place, top] :
         {std::pair{chain[to], right.back()}, std::pair{chain[from], left.back()}}) {
        const auto known = crossing_.find({lined_.on[0][place], lined_.on[1][place]});
        if (known != crossing_.end() && known->second == place)
            tool_.base.push_back(top);
        else
            ends_.push_back(top);
    }
    if (c_.kind == BackKind::foam_blocks) cap(ring, right, left, edge_from);
}

void ToolBuilder::cap(const std::vector<std::uint32_t>& ring, const std::vector<std::uint32_t>& right,
                      const std::vector<std::uint32_t>& left, std::size_t edge_from) {
    std::vector<std::uint32_t> line{right.back()};
    for (auto i = edge_from; i < ring.size() && ring[i] != left.back(); ++i) line.push_back(ring[i]);
    line.push_back(left.back());
    const double E = cap_.membrane.Ex, t = cap_.thickness, w = c_.foam.wide;
    for (std::size_t i = 1; i < line.size(); ++i) {
        if ((points()[line[i]] - points()[line[i - 1]]).norm() < 1e-9) continue;
        Bar bar{line[i - 1], line[i]};
        bar.stretch = E * t * w;
        bar.bend_up = E * w * t * t * t / 12;
        bar.bend_across = E * t * w * w * w / 12;
        bar.twist = cap_.membrane.Gxy * w * t * t * t / 3;
        bar.mass = cap_.areal_mass * w;
        bar.alpha = cap_.cte[0];
        bar.up = upright_of(line[i - 1], line[i]);
        tool_.model.bars.push_back(bar);
    }
}

Tie ToolBuilder::tied(std::uint32_t a, std::uint32_t b, const BondFacts& bond, double reach,
                      const Point& normal) {
    Tie tie{a, b, {}, Eigen::Matrix3d::Zero()};
    tie.stiffness = reach * (bond.sliding * Eigen::Matrix3d::Identity() +
                             (bond.across - bond.sliding) * normal * normal.transpose());
    return tie;
}

void ToolBuilder::tie_chain(const std::vector<std::uint32_t>& chain, const Point& along) {
    const auto bond = bond_of(c_.joint, rib_thickness_, in_.shell_found.resin, in_.shop);
    const Point side = along.cross(f_.w).normalized();
    for (std::size_t i = 0; i < chain.size(); ++i) {
        double reach = 0;
        Point way = Point::Zero();
        if (i > 0) {
            reach += (points()[chain[i]] - points()[chain[i - 1]]).norm() / 2;
            way += points()[chain[i]] - points()[chain[i - 1]];
        }
        if (i + 1 < chain.size()) {
            reach += (points()[chain[i + 1]] - points()[chain[i]]).norm() / 2;
            way += points()[chain[i + 1]] - points()[chain[i]];
        }
        const Point normal = side.cross(way).normalized();
        auto tie = tied(chain[i], beside(chain[i]), bond, reach, normal);
        // Both flanks of the rib hold it upright.
        const Point line = way.normalized();
        tie.turning = reach * bond.across * rib_thickness_ * rib_thickness_ / 4 * line * line.transpose();
        tool_.model.ties.push_back(tie);
    }
}

}  // namespace jig::back
