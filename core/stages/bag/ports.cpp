#include "core/stages/bag/ports.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <queue>

#include "core/base/error.hpp"

namespace jig::bag {
namespace {

/// m round a hose's foot that it feeds, typical of a port under the film.
constexpr double kFoot = 0.015;
double length_of(const std::vector<Point>& line) {
    double out = 0;
    for (std::size_t k = 1; k < line.size(); ++k) out += (line[k] - line[k - 1]).norm();
    return out;
}

/// A line's way, then those of a fishbone's sides: first one side, then the other.
std::vector<std::vector<std::uint32_t>> ways_of(const Port& port, const FlowGround& ground) {
    const Point2 from(port.along, port.across), to(port.to_along, port.to_across);
    std::vector<std::vector<std::uint32_t>> out{ground.way(ground.nearest(from), ground.nearest(to))};
    if (port.kind != PortKind::fishbone || port.reach <= 0 || (to - from).norm() <= 0) return out;
    const Point2 along = (to - from).normalized(), aside(-along.y(), along.x());
    for (const double side : {1.0, -1.0}) {
        for (int k = 0; k < port.bones; ++k) {
            const Point2 root = from + (k + 0.5) / port.bones * (to - from);
            auto way = ground.way(ground.nearest(root), ground.nearest(root + side * port.reach * aside));
            if (way.size() > 1) out.push_back(std::move(way));
        }
    }
    return out;
}

/// Of the half length: how much of the rim belongs to one end.
constexpr double kEnd = 0.25;

}  // namespace

FlowGround::FlowGround(const TriangleMesh& mesh, const Frame& frame) : mesh_(mesh), frame_(frame) {
    const auto n = mesh.points.size();
    // Every edge of every triangle both ways, then each once.
    std::vector<std::uint32_t> fill(n + 1, 0), all(6 * mesh.triangles.size());
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) fill[i + 1] += 2;
    }
    for (std::size_t i = 0; i < n; ++i) fill[i + 1] += fill[i];
    const auto begins = fill;
    double sum = 0;
    for (const auto& t : mesh.triangles) {
        for (std::size_t k = 0; k < 3; ++k) {
            const auto a = t[k], b = t[(k + 1) % 3];
            all[fill[a]++] = b;
            all[fill[b]++] = a;
            sum += (mesh.points[a] - mesh.points[b]).norm();
        }
    }
    edge_ = mesh.triangles.empty() ? 0 : sum / static_cast<double>(3 * mesh.triangles.size());
    start_.assign(1, 0);
    to_.reserve(all.size() / 2 + n);
    Point2 low = Point2::Constant(1e300), high = -low;
    for (std::uint32_t i = 0; i < n; ++i) {
        const auto from = all.begin() + begins[i], to = all.begin() + begins[i + 1];
        std::sort(from, to);
        to_.insert(to_.end(), from, std::unique(from, to));
        start_.push_back(static_cast<std::uint32_t>(to_.size()));
        if (from == to) continue;
        used_.push_back(i);
        low = low.cwiseMin(frame.flat(mesh.points[i]));
        high = high.cwiseMax(frame.flat(mesh.points[i]));
    }
    if (!used_.empty()) {
        middle_ = (low + high) / 2;
        half_ = (high - low) / 2;
    }
    const auto loops = rim_loops(mesh, topology_of(mesh));
    if (!loops.empty()) rim_ = loops.front();
}

std::uint32_t FlowGround::nearest(const Point2& place) const {
    std::uint32_t best = used_.empty() ? 0 : used_.front();
    double least = 1e300;
    for (const auto i : used_) {
        const double d = (seen(i) - place).squaredNorm();
        if (d < least) {
            least = d;
            best = i;
        }
    }
    return best;
}

Point2 FlowGround::chord(double across) const {
    Point2 out(1e300, -1e300);
    // The nearest that has any point: even triangles leave none wider than two of their edges.
    for (double reach = std::max(edge_, 1e-6); out.x() > out.y() && reach < 1e6; reach *= 2) {
        for (const auto i : used_) {
            const Point2 p = seen(i);
            if (std::abs(p.y() - across) > reach) continue;
            out.x() = std::min(out.x(), p.x());
            out.y() = std::max(out.y(), p.x());
        }
    }
    return out;
}

template <class Cost>
std::vector<double> FlowGround::spread(const std::vector<std::uint32_t>& from, Cost&& cost,
                                       std::vector<std::uint32_t>* before, std::uint32_t to) const {
    std::vector<double> out(mesh_.points.size(), 1e300);
    using Entry = std::pair<double, std::uint32_t>;
    std::priority_queue<Entry, std::vector<Entry>, std::greater<>> next;
    if (before != nullptr) before->assign(mesh_.points.size(), kNoFace);
    for (const auto i : from) {
        out[i] = 0;
        next.emplace(0.0, i);
    }
    while (!next.empty()) {
        const auto [far, i] = next.top();
        next.pop();
        if (far > out[i]) continue;
        if (i == to) break;
        for (auto e = start_[i]; e < start_[i + 1]; ++e) {
            const auto j = to_[e];
            const double d = far + cost(i, j);
            if (d >= out[j]) continue;
            out[j] = d;
            if (before != nullptr) (*before)[j] = i;
            next.emplace(d, j);
        }
    }
    return out;
}

std::vector<double> FlowGround::away_from(const std::vector<std::uint32_t>& from) const {
    return spread(
        from, [&](std::uint32_t i, std::uint32_t j) { return (mesh_.points[i] - mesh_.points[j]).norm(); },
        nullptr, kNoFace);
}

std::vector<std::uint32_t> FlowGround::way(std::uint32_t from, std::uint32_t to) const {
    if (from == to) return {from};
    Point2 along = seen(to) - seen(from);
    if (along.norm() <= 0) return {from, to};
    along.normalize();
    const Point2 aside(-along.y(), along.x());
    std::vector<std::uint32_t> before;
    const auto cost = [&](std::uint32_t i, std::uint32_t j) {
        const double off = aside.dot((seen(i) + seen(j)) / 2 - seen(from)) / std::max(edge_, 1e-9);
        return (mesh_.points[i] - mesh_.points[j]).norm() * (1 + off * off);
    };
    spread({from}, cost, &before, to);
    if (before[to] == kNoFace) return {from, to};
    std::vector<std::uint32_t> out;
    for (auto i = to; i != kNoFace; i = before[i]) out.push_back(i);
    std::reverse(out.begin(), out.end());
    return out;
}

std::vector<Point> straightened(const std::vector<std::uint32_t>& way, const FlowGround& ground) {
    const auto& at = ground.mesh().points;
    const Point first = at[way.front()], aside = ground.frame().w.cross(at[way.back()] - first).normalized();
    std::vector<Point> out;
    for (const auto i : way) out.push_back(at[i] - (at[i] - first).dot(aside) * aside);
    return out;
}

std::optional<Port> mirrored(const Port& port) {
    constexpr double kOnIt = 1e-6;  // m
    const auto same = [](const Port& a, const Port& b) {
        const Point2 a0(a.along, a.across), a1(a.to_along, a.to_across), b0(b.along, b.across),
            b1(b.to_along, b.to_across);
        const auto near = [](const Point2& p, const Point2& q) { return (p - q).norm() < kOnIt; };
        if (a.kind == PortKind::place) return near(a0, b0);
        return (near(a0, b0) && near(a1, b1)) || (near(a0, b1) && near(a1, b0));
    };
    // A piece of the rim is told by how far along it lies, on both sides.
    if (port.kind != PortKind::rim) {
        auto over = port;
        over.across = -port.across;
        over.to_across = -port.to_across;
        if (!same(over, port)) return over;
    }
    auto along = port;
    along.along = -port.along;
    along.to_along = -port.to_along;
    if (port.kind == PortKind::rim) std::swap(along.along, along.to_along);
    if (same(along, port)) return {};
    return along;
}

std::vector<Port> planned_ports(const Infusion& infusion, const FlowGround& ground) {
    if (infusion.plan == InfusionPlan::own) {
        auto out = infusion.ports;
        std::stable_sort(out.begin(), out.end(), [](const Port& a, const Port& b) { return a.use < b.use; });
        return out;
    }
    std::vector<Port> out;
    const auto& half = ground.half();
    const auto rim = [](PortUse use, double from, double to) {
        Port p;
        p.use = use;
        p.kind = PortKind::rim;
        p.along = from;
        p.to_along = to;
        return p;
    };
    switch (infusion.plan) {
        case InfusionPlan::own:
            break;
        case InfusionPlan::spine: {
            // Nearer to the ends than to the sides of the strip that each has to fill: ends are fed all
            // round.
            const double strip = half.y() / infusion.lines, inset = std::max(strip / 2, 2 * infusion.brake);
            const double first = infusion.lines % 2 == 0 ? strip : 0;
            for (int k = 0; k < infusion.lines; ++k) {
                Port p;
                p.kind = PortKind::line;
                p.across = p.to_across = strip * (2 * k + 1) - half.y();
                const Point2 ends = ground.chord(p.across);
                const double in = std::min(inset, 0.45 * (ends.y() - ends.x()));
                p.along = ends.x() + in;
                p.to_along = ends.y() - in;
                // Those beside the middle wait until what the middle feeds has come to them.
                if (std::abs(p.across) > first * 1.01 + 1e-9) p.opens = PortOpens::front;
                out.push_back(p);
            }
            std::stable_sort(out.begin(), out.end(), [](const Port& a, const Port& b) {
                return std::abs(a.across) < std::abs(b.across) - 1e-9;
            });
            out.push_back(rim(PortUse::vent, 0, 0));
            break;
        }
        case InfusionPlan::fishbone: {
            Port p;
            p.kind = PortKind::fishbone;
            p.bones = infusion.lines;
            const Point2 ends = ground.chord(0);
            const double pitch = (ends.y() - ends.x()) / (p.bones + 1);
            // Between two side lines resin has half their pitch to go; no farther should it be to the rim.
            const double inset = std::max(pitch / 2, 2 * infusion.brake);
            const double in = std::min(inset, 0.45 * (ends.y() - ends.x()));
            p.along = ends.x() + in;
            p.to_along = ends.y() - in;
            p.reach = std::max(0.25 * half.y(), half.y() - inset);
            out.push_back(p);
            out.push_back(rim(PortUse::vent, 0, 0));
            break;
        }
        case InfusionPlan::ring: {
            out.push_back(rim(PortUse::feed, 0, 0));
            Port p;
            p.use = PortUse::vent;
            const auto far = ground.away_from(ground.rim());
            auto deepest = ground.nearest(Point2::Zero());
            double most = 0;
            for (std::uint32_t i = 0; i < far.size(); ++i) {
                if (far[i] > most && far[i] < 1e299) {
                    most = far[i];
                    deepest = i;
                }
            }
            p.along = ground.seen(deepest).x();
            p.across = ground.seen(deepest).y();
            out.push_back(p);
            break;
        }
        case InfusionPlan::end:
            out.push_back(rim(PortUse::feed, -half.x(), -(1 - kEnd) * half.x()));
            out.push_back(rim(PortUse::vent, (1 - kEnd) * half.x(), half.x()));
            break;
    }
    return out;
}

std::vector<PlacedPort> placed(const std::vector<Port>& ports, const FlowGround& ground) {
    std::vector<PlacedPort> out;
    const auto& mesh = ground.mesh();
    std::array<int, 2> count{};
    for (const auto& port : ports) {
        PlacedPort p{port, {}, {}, {}, 0, Point::Zero()};
        const bool feeds = port.use == PortUse::feed;
        p.name = fmt::format("{} {}", feeds ? "feed" : "vent", ++count[feeds ? 0 : 1]);
        switch (port.kind) {
            case PortKind::place: {
                const auto foot = ground.nearest({port.along, port.across});
                for (std::uint32_t i = 0; i < mesh.points.size(); ++i) {
                    if ((mesh.points[i] - mesh.points[foot]).norm() <= kFoot) p.points.push_back(i);
                }
                p.at = mesh.points[foot];
                break;
            }
            case PortKind::line:
            case PortKind::fishbone: {
                p.ways = ways_of(port, ground);
                for (const auto& way : p.ways) {
                    for (const auto i : way) {
                        if (std::find(p.points.begin(), p.points.end(), i) == p.points.end())
                            p.points.push_back(i);
                    }
                    p.length += length_of(straightened(way, ground));
                }
                p.at = mesh.points[p.ways.front()[p.ways.front().size() / 2]];
                break;
            }
            case PortKind::rim: {
                const auto& rim = ground.rim();
                if (rim.empty())
                    throw InputError("bag", "the face has no rim that " + p.name + " could lie along",
                                     "place it at a place or along a line");
                // Both ends alike stand for all of it.
                const bool whole = std::abs(port.to_along - port.along) < 1e-9;
                const double low = std::min(port.along, port.to_along) - 1e-9,
                             high = std::max(port.along, port.to_along) + 1e-9;
                const auto takes = [&](std::uint32_t i) {
                    const double x = ground.seen(i).x();
                    return whole || (x >= low && x <= high);
                };
                for (std::size_t k = 0; k < rim.size(); ++k) {
                    const auto a = rim[k], b = rim[(k + 1) % rim.size()];
                    if (takes(a)) p.points.push_back(a);
                    if (takes(a) && takes(b)) p.length += (mesh.points[a] - mesh.points[b]).norm();
                }
                if (p.points.empty())
                    throw InputError("bag", "no place of the rim lies where " + p.name + " is to go",
                                     "give it a longer piece of the rim");
                p.at = mesh.points[p.points[p.points.size() / 2]];
                break;
            }
        }
        out.push_back(std::move(p));
    }
    return out;
}

}  // namespace jig::bag
