#include "core/stages/part/cuts_sought.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/base/parallel.hpp"
#include "core/stages/part/cut_line.hpp"

namespace jig::part {
namespace {

/// Share of the face that may stay locked: as much as the call lets pass.
constexpr double kLittle = 0.005;
/// A cut has to free at least this share of the patch that it goes through.
constexpr double kWorth = 0.2;
/// Patches that no cut helps before it is given up.
constexpr std::size_t kMostHopeless = 4;
/// Share of the face that a cut as long as the face is may cost: of two that free alike the shorter is taken.
constexpr double kCost = 0.01;

/// Of each net what is locked, as often as plies lie so.
double locked_of(const Draped& draped) {
    double out = 0;
    for (const auto& net : draped.nets) out += net.drape.locked * static_cast<double>(net.plies.size());
    return out;
}

/// What of a net is locked and hangs together, seen along the pull.
struct Patch {
    std::vector<Point2> middles;  ///< of its triangles
    Point2 middle = Point2::Zero();
    double area = 0;
};

std::vector<Patch> patches(const Draped& draped, const ClothNet& net, const Topology& topology,
                           const Frame& frame) {
    const auto& face = *draped.face;
    std::vector<char> locked(face.triangles.size(), 0);
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        const auto shear = shear_at(net.drape, face, f, face.centre(f));
        locked[f] = shear && *shear > net.lock;
    }
    std::vector<Patch> out;
    for (std::uint32_t f = 0; f < face.triangles.size(); ++f) {
        if (locked[f] == 0) continue;
        auto& patch = out.emplace_back();
        std::vector<std::uint32_t> open{f};
        locked[f] = 0;
        for (std::size_t k = 0; k < open.size(); ++k) {
            const double area = face.area_vector2(open[k]).norm() / 2;
            patch.middles.push_back(frame.flat(face.centre(open[k])));
            patch.middle += area * patch.middles.back();
            patch.area += area;
            for (const auto other : topology.across[open[k]]) {
                if (other == kNoFace || locked[other] == 0) continue;
                locked[other] = 0;
                open.push_back(other);
            }
        }
        if (patch.area > 0) patch.middle /= patch.area;
    }
    std::sort(out.begin(), out.end(), [](const Patch& a, const Patch& b) { return a.area > b.area; });
    return out;
}

/// Along which a patch is longest.
Point2 long_way(const Patch& patch) {
    Eigen::Matrix2d spread = Eigen::Matrix2d::Zero();
    for (const auto& p : patch.middles) spread += (p - patch.middle) * (p - patch.middle).transpose();
    const double turn = 0.5 * std::atan2(2 * spread(0, 1), spread(0, 0) - spread(1, 1));
    return {std::cos(turn), std::sin(turn)};
}

/// Darts through a patch, out past the rim.
std::vector<Cut> darts(const Patch& patch, const Point2& seed, const Point2& middle, double size,
                       const SeenRim& rim) {
    std::vector<Point2> ways;
    const auto add = [&](const Point2& way) {
        if (!(way.norm() > 1e-6 * size)) return;
        const Point2 unit = way.normalized();
        if (std::none_of(ways.begin(), ways.end(), [&](const Point2& w) { return w.dot(unit) > 0.995; }))
            ways.push_back(unit);
    };
    add(patch.middle - seed);
    if (const auto near = rim.nearest(patch.middle)) add(*near - patch.middle);
    const Point2 own = long_way(patch);
    add(own.dot(patch.middle - seed) < 0 ? Point2(-own) : own);
    std::vector<Cut> out;
    for (const auto& way : ways) {
        double near = 0, far = 0;
        for (const auto& p : patch.middles) {
            near = std::min(near, (p - patch.middle).dot(way));
            far = std::max(far, (p - patch.middle).dot(way));
        }
        const double end = std::max(far, rim.out(patch.middle, way)) + 0.03 * size;
        for (const double further : {0.0, 0.4, 1.0}) {
            const double begin = near - further * std::max(far - near, 0.04 * size);
            const auto spot = [&](double at) {
                const Point2 p = patch.middle + at * way - middle;
                // To a tenth of a millimetre, as it would be typed.
                return Spot{std::round(p.x() * 1e4) / 1e4, std::round(p.y() * 1e4) / 1e4};
            };
            Cut cut;
            cut.line = {spot(begin), spot(end)};
            out.push_back(std::move(cut));
        }
    }
    return out;
}

double seen_length(const Cut& cut) {
    double out = 0;
    for (std::size_t i = 0; i + 1 < cut.line.size(); ++i)
        out += std::hypot(cut.line[i + 1].along - cut.line[i].along,
                          cut.line[i + 1].across - cut.line[i].across);
    return out;
}

/// With a cut in all its plies.
ClothAsked with_cut(ClothAsked asked, const Cut& cut) {
    asked.cuts.push_back(cut);
    for (auto& ply : asked.plies) ply.cuts.push_back({asked.cuts.size() - 1, 0});
    return asked;
}

/// Seeks for plies that lie alike.
class Seeker {
  public:
    Seeker(ClothAsked asked, const edge::ToolFace& tool, const Lists<Reinforcement>& shop)
        : asked_(std::move(asked)), tool_(tool), shop_(shop) {}

    /// The cuts that were found; `tried` is raised by the ways of cutting that were.
    std::vector<Cut> seek(std::size_t most, int& tried, const std::string& of, Progress& progress) {
        std::vector<Cut> out;
        auto now = draped(asked_, tool_, shop_, progress);
        while (out.size() < most && hopeless_.size() < kMostHopeless && now.worst() != nullptr &&
               now.worst()->drape.locked > kLittle * now.area) {
            progress.report(static_cast<double>(out.size()) / static_cast<double>(most),
                            of + ": " + std::to_string(out.size()) + " cuts found");
            const auto tries = next_tries(now);
            if (tries.empty()) break;
            std::vector<Draped> found(tries.size());
            parallel_shares(tries.size(), 1, [&](std::size_t begin, std::size_t end, unsigned) {
                for (auto i = begin; i < end; ++i)
                    found[i] = draped(with_cut(asked_, tries[i]), tool_, shop_, progress);
            });
            tried += static_cast<int>(tries.size());
            const auto price = [&](std::size_t i) {
                return locked_of(found[i]) + kCost * now.area * seen_length(tries[i]) / size_;
            };
            std::optional<std::size_t> best;
            for (std::size_t i = 0; i < tries.size(); ++i) {
                if (locked_of(found[i]) < locked_of(now) - kWorth * patch_.area &&
                    (!best || price(i) < price(*best)))
                    best = i;
            }
            if (!best) {
                hopeless_.push_back(patch_.middle);
                continue;
            }
            out.push_back(tries[*best]);
            asked_ = with_cut(asked_, tries[*best]);
            now = std::move(found[*best]);
        }
        return out;
    }

  private:
    /// Darts through the largest patch for which there is hope.
    std::vector<Cut> next_tries(const Draped& now) {
        const auto& face = *now.face;
        const auto topology = topology_of(face);
        const Point2 middle = seen_middle(face, tool_.frame);
        size_ = 0;
        for (const auto& t : face.triangles) {
            for (const auto i : t)
                size_ = std::max(size_, 2 * (tool_.frame.flat(face.points[i]) - middle).norm());
        }
        for (auto& patch : patches(now, *now.worst(), topology, tool_.frame)) {
            if (patch.area < kLittle / 4 * now.area) break;
            if (std::any_of(hopeless_.begin(), hopeless_.end(),
                            [&](const Point2& h) { return (h - patch.middle).norm() < 0.05 * size_; }))
                continue;
            patch_ = std::move(patch);
            return darts(patch_, tool_.frame.flat(now.seed), middle, size_,
                         SeenRim(face, topology, tool_.frame));
        }
        return {};
    }

    ClothAsked asked_;
    const edge::ToolFace& tool_;
    const Lists<Reinforcement>& shop_;
    std::vector<Point2> hopeless_;
    Patch patch_;      ///< that is tried
    double size_ = 0;  ///< m across the face, seen along the pull
};

}  // namespace

SoughtCuts seek_cuts(const ClothAsked& wanted, const edge::ToolFace& tool, const Lists<Reinforcement>& shop,
                     Progress& progress) {
    SoughtCuts out;
    out.cuts = wanted.cuts;
    const auto first = draped(wanted, tool, shop, progress);
    const auto worst = [](const Draped& d) { return d.worst() == nullptr ? 0 : d.worst()->drape.locked; };
    out.before = out.after = worst(first);
    std::set<double> angles, locking;
    for (const auto& ply : wanted.plies) {
        angles.insert(alike(ply.angle));
        for (const auto& net : first.nets) {
            if (net.carries(ply.of) && net.drape.locked > kLittle * first.area)
                locking.insert(alike(ply.angle));
        }
    }
    auto whole = wanted;
    for (const double angle : locking) {
        auto alone = wanted;
        std::erase_if(alone.plies, [&](const ClothAsked::Ply& ply) { return alike(ply.angle) != angle; });
        const auto room = std::min(kMostFound, kMostCuts - std::min(kMostCuts, out.cuts.size()));
        auto found = Seeker(alone, tool, shop)
                         .seek(room, out.tried, "plies at " + quantity(Kind::angle, angle), progress);
        for (auto& cut : found) {
            cut.piece = tool.piece;
            if (angles.size() > 1) {
                cut.in = CutIn::angle;
                cut.angle = angle;
            }
            out.cuts.push_back(cut);
            ++out.found;
            whole.cuts.push_back(cut);
            for (auto& ply : whole.plies) {
                if (alike(ply.angle) == angle) ply.cuts.push_back({whole.cuts.size() - 1, 0});
            }
        }
    }
    if (out.found == 0) return out;
    const auto last = draped(whole, tool, shop, progress);
    out.after = worst(last);
    for (const auto& c : last.cuts) {
        if (c.as.cut >= wanted.cuts.size()) out.length += c.length;
    }
    return out;
}

}  // namespace jig::part
