#include "core/science/flow/network.hpp"

#include <tbb/parallel_invoke.h>

#include <algorithm>

#include "core/science/flow/ways.hpp"

namespace jig {
namespace {

/// About so many points a patch of the coarse correction.
constexpr std::uint32_t kPatch = 16;
/// Wet points from which both cores take a part each. The parts are the same on one core.
constexpr std::size_t kShared = 8000;

/// m² of a face that are nearest to each of its corners; of one with a wide angle a half goes to that, a
/// quarter to each of the others (Meyer et al. 2003): the parts that the fluxes of linear triangles belong
/// to.
std::array<double, 3> around_corners(const TriangleMesh& mesh, std::size_t f) {
    std::array<double, 3> out{}, cot{}, side{};
    const double area = mesh.area_vector2(f).norm() / 2;
    for (int k = 0; k < 3; ++k) {
        const Point a = mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k),
                    b = mesh.corner(f, (k + 2) % 3) - mesh.corner(f, k);
        const auto i = static_cast<std::size_t>(k);
        if (a.dot(b) < 0) {
            out.fill(area / 4);
            out[i] = area / 2;
            return out;
        }
        cot[i] = a.dot(b) / (2 * area);
        side[i] = (a - b).squaredNorm();  // across from corner k
    }
    for (std::size_t k = 0; k < 3; ++k)
        out[k] = (side[(k + 1) % 3] * cot[(k + 1) % 3] + side[(k + 2) % 3] * cot[(k + 2) % 3]) / 8;
    return out;
}

}  // namespace

FlowNetwork network_of(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces) {
    FlowNetwork out;
    const auto n = mesh.points.size();
    out.volume.assign(n, 0);
    out.area.assign(n, 0);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const auto& t = mesh.triangles[f];
        const Point normal = mesh.area_vector2(f);
        const double twice = normal.norm();
        if (twice <= 0) continue;
        const auto share = around_corners(mesh, f);
        for (std::size_t k = 0; k < 3; ++k) {
            out.volume[t[k]] += faces[f].holds * share[k];
            out.area[t[k]] += share[k];
        }
    }
    const auto ways = ways_between(mesh, faces);
    out.start.assign(n + 1, 0);
    for (const auto& way : ways) {
        ++out.start[way.from + 1];
        ++out.start[way.to + 1];
    }
    for (std::size_t i = 0; i < n; ++i) out.start[i + 1] += out.start[i];
    out.to.resize(2 * ways.size());
    out.conducts.resize(2 * ways.size());
    auto next = out.start;
    // Those before each point first, as the ways are sorted.
    const auto put = [&](std::uint32_t from, std::uint32_t to, double conducts) {
        out.to[next[from]] = to;
        out.conducts[next[from]++] = conducts;
    };
    for (const auto& way : ways) put(way.to, way.from, way.conducts);
    for (const auto& way : ways) put(way.from, way.to, way.conducts);
    return out;
}

FlowPressure::FlowPressure(const FlowNetwork& network)
    : net_(network),
      patch_(network.count(), kNone),
      place_(network.count()),
      diagonal_(network.count()),
      inverse_(network.count()),
      r_(network.count()),
      z_(network.count()),
      d_(network.count()),
      q_(network.count()) {
    // Patches grow round points that have none yet.
    std::vector<std::uint32_t> queue;
    for (std::uint32_t seed = 0; seed < net_.count(); ++seed) {
        if (patch_[seed] != kNone) continue;
        queue.assign(1, seed);
        patch_[seed] = patches_;
        for (std::size_t k = 0; k < queue.size() && queue.size() < kPatch; ++k) {
            for (auto e = net_.start[queue[k]]; e < net_.start[queue[k] + 1] && queue.size() < kPatch; ++e) {
                if (patch_[net_.to[e]] != kNone) continue;
                patch_[net_.to[e]] = patches_;
                queue.push_back(net_.to[e]);
            }
        }
        ++patches_;
    }
}

void FlowPressure::solve(const std::vector<FlowState>& state, const std::vector<double>& b, double step,
                         double share, std::vector<double>& p) {
    gather(state, b, p);
    begun_ = false;
    go_on(step, share, p);
}

void FlowPressure::go_on(double step, double share, std::vector<double>& p) {
    const auto n = active_.size();
    // m³ per unit of flow time that each point may leave over.
    leave_.resize(n);
    bool good = true;
    for (std::size_t k = 0; k < n; ++k) {
        leave_[k] = share * net_.volume[active_[k]] / step;
        good = good && std::abs(r_[k]) <= leave_[k];
    }
    if (good) return;
    if (!begun_) {
        renew_patches();
        d_.assign(n, 0);
        rounds_ = 0;
    }
    x_.assign(n, 0);
    for (; rounds_ < 3000; ++rounds_) {
        const double next = precondition();
        if (!(next > 0)) break;
        const double keep = begun_ ? next / rz_ : 0;
        begun_ = true;
        rz_ = next;
        in_parts([&](std::size_t from, std::size_t to) {
            for (auto k = from; k < to; ++k) d_[k] = z_[k] + keep * d_[k];
            return 0.0;
        });
        const double dq = in_parts([&](std::size_t from, std::size_t to) {
            double out = 0;
            for (auto k = from; k < to; ++k) {
                double sum = diagonal_[k] * d_[k];
                for (auto e = start_[k]; e < start_[k + 1]; ++e) sum -= conducts_[e] * d_[to_[e]];
                q_[k] = sum;
                out += sum * d_[k];
            }
            return out;
        });
        if (!(dq > 0)) break;
        const double way = rz_ / dq;
        const double bad = in_parts([&](std::size_t from, std::size_t to) {
            bool fine = true;
            for (auto k = from; k < to; ++k) {
                x_[k] += way * d_[k];
                r_[k] -= way * q_[k];
                fine &= std::abs(r_[k]) <= leave_[k];
            }
            return fine ? 0.0 : 1.0;
        });
        if (bad <= 0) break;
    }
    for (std::size_t k = 0; k < n; ++k) p[active_[k]] += x_[k];
}

template <class Part>
double FlowPressure::in_parts(const Part& part) const {
    const auto n = active_.size();
    if (n < kShared) return part(std::size_t{0}, n);
    double front = 0, back = 0;
    tbb::parallel_invoke([&] { front = part(std::size_t{0}, n / 2); }, [&] { back = part(n / 2, n); });
    return front + back;
}

void FlowPressure::gather(const std::vector<FlowState>& state, const std::vector<double>& b,
                          const std::vector<double>& p) {
    active_.clear();
    for (std::uint32_t i = 0; i < net_.count(); ++i) {
        place_[i] = static_cast<std::uint32_t>(active_.size());
        if (state[i] == FlowState::wet) active_.push_back(i);
    }
    const auto n = active_.size();
    std::size_t links = 0;
    for (const auto i : active_) links += net_.start[i + 1] - net_.start[i];
    start_.resize(n + 1);
    middle_.resize(n);
    to_.resize(links);
    conducts_.resize(links);
    std::uint32_t at = 0;
    for (std::size_t k = 0; k < n; ++k) {
        const auto i = active_[k];
        double sum = 0, flow = b[i];
        start_[k] = at;
        middle_[k] = kNone;
        for (auto e = net_.start[i]; e < net_.start[i + 1]; ++e) {
            const auto j = net_.to[e];
            if (state[j] == FlowState::shut) continue;
            sum += net_.conducts[e];
            flow -= net_.conducts[e] * (p[i] - p[j]);
            if (state[j] != FlowState::wet) continue;
            if (middle_[k] == kNone && j > i) middle_[k] = at;
            to_[at] = place_[j];
            conducts_[at++] = net_.conducts[e];
        }
        if (middle_[k] == kNone) middle_[k] = at;
        diagonal_[k] = sum > 0 ? sum : 1;
        inverse_[k] = 1 / diagonal_[k];
        r_[k] = flow;
    }
    start_[n] = at;
}

void FlowPressure::renew_patches() {
    // It only has to be near: made anew where the wet points have become others, or where it helps less.
    const auto n = static_cast<double>(active_.size());
    if (std::abs(n - coarse_for_) > 0.02 * coarse_for_ || rounds_ > 2 * coarse_rounds_ + 4) {
        coarsen();
        coarse_for_ = n;
        coarse_rounds_ = 1000000;
    } else {
        coarse_rounds_ = std::min(coarse_rounds_, rounds_);
    }
    patch_of_.resize(active_.size());
    const auto held = static_cast<std::uint32_t>(rough_.size() - 1);
    for (std::size_t k = 0; k < active_.size(); ++k)
        patch_of_[k] = std::min(number_[patch_[active_[k]]], held);
}

void FlowPressure::coarsen() {
    // What patches exchange, and what they give to points that are held.
    number_.assign(patches_, kNone);
    patch_of_.resize(active_.size());
    std::uint32_t coarse = 0;
    for (std::size_t k = 0; k < active_.size(); ++k) {
        auto& c = number_[patch_[active_[k]]];
        if (c == kNone) c = coarse++;
        patch_of_[k] = c;
    }
    std::vector<Eigen::Triplet<double>> parts;
    std::vector<double> own(coarse, 0);
    for (std::size_t k = 0; k < active_.size(); ++k) {
        const auto c = patch_of_[k];
        own[c] += diagonal_[k];
        for (auto e = start_[k]; e < start_[k + 1]; ++e) {
            const auto other = patch_of_[to_[e]];
            if (other == c)
                own[c] -= conducts_[e];
            else if (other < c)
                parts.emplace_back(static_cast<int>(c), static_cast<int>(other), -conducts_[e]);
        }
    }
    const double largest = own.empty() ? 0 : *std::max_element(own.begin(), own.end());
    for (std::uint32_t c = 0; c < coarse; ++c)
        parts.emplace_back(static_cast<int>(c), static_cast<int>(c),
                           std::max(own[c], 1e-12 * largest) * (1 + 1e-12));
    Eigen::SparseMatrix<double> matrix(static_cast<int>(coarse), static_cast<int>(coarse));
    matrix.setFromTriplets(parts.begin(), parts.end());
    coarse_.compute(matrix);
    // One more, held at nought, for points whose patch was dry when this was made.
    rough_.setZero(static_cast<Eigen::Index>(coarse) + 1);
    lift_.setZero(static_cast<Eigen::Index>(coarse) + 1);
}

double FlowPressure::precondition() {
    // One sweep forwards and one back, on the residual; each part by itself.
    in_parts([&](std::size_t from, std::size_t to) {
        for (auto k = from; k < to; ++k) {
            double sum = r_[k];
            for (auto e = start_[k]; e < middle_[k]; ++e) {
                if (to_[e] >= from) sum += conducts_[e] * z_[to_[e]];
            }
            z_[k] = sum * inverse_[k];
        }
        for (auto k = to; k-- > from;) {
            double sum = 0;
            for (auto e = middle_[k]; e < start_[k + 1]; ++e) {
                if (to_[e] < to) sum += conducts_[e] * z_[to_[e]];
            }
            z_[k] += sum * inverse_[k];
        }
        return 0.0;
    });
    const bool lifts = coarse_.info() == Eigen::Success;
    if (lifts) {
        rough_.setZero();
        for (std::size_t k = 0; k < active_.size(); ++k)
            rough_[static_cast<Eigen::Index>(patch_of_[k])] += r_[k];
        const auto whole = rough_.size() - 1;
        lift_.head(whole) = coarse_.solve(rough_.head(whole));
    }
    return in_parts([&](std::size_t from, std::size_t to) {
        double out = 0;
        for (auto k = from; k < to; ++k) {
            if (lifts) z_[k] += lift_[static_cast<Eigen::Index>(patch_of_[k])];
            out += r_[k] * z_[k];
        }
        return out;
    });
}

}  // namespace jig
