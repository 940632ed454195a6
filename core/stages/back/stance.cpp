#include "core/stages/back/stance.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>

namespace jig::back {

using shell_fe::Loads;
using shell_fe::Solution;

namespace {

std::vector<Loads> unit_loads(const std::vector<std::uint32_t>& feet) {
    std::vector<Loads> out;
    for (const auto i : feet) {
        Loads l;
        l.nodes = {{i, Point::UnitZ()}};
        out.push_back(std::move(l));
    }
    return out;
}

void add(Solution& to, const Solution& what, double times) {
    to.freedoms += times * what.freedoms;
    to.reactions += times * what.reactions;
}

void measure(Solution& u) {
    u.largest = 0;
    for (Eigen::Index i = 0; i + 5 < u.freedoms.size(); i += 6)
        u.largest = std::max(u.largest, u.freedoms.segment<3>(i).norm());
}

}  // namespace

struct OnFeet::Reached {
    Eigen::VectorXd force;                 ///< N along the pull, from the ground on each foot
    Eigen::Vector3d tilt = Point::Zero();  ///< of the whole: shift along the pull, slopes along x and y
    int lifted = 0;
    bool stands = true;
};

OnFeet::OnFeet(const Bench& bench, const std::vector<std::uint32_t>& feet, Progress& progress)
    : points_(bench.points()),
      feet_(feet),
      three_(three_of(points_, feet)),
      system_(std::make_shared<const shell_fe::System>(bench.tool().model, three_, progress)) {
    push_each_foot();
}

OnFeet::OnFeet(const OnFeet& same, const std::vector<std::uint32_t>& feet)
    : points_(same.points_), feet_(feet), three_(three_of(points_, feet)), system_(same.system_) {
    push_each_foot();
}

void OnFeet::push_each_foot() {
    auto loads = unit_loads(feet_);
    loads.push_back(Bench::weight(1));
    unit_ = system_->solve(loads);
    weight_ = std::move(unit_.back());
    unit_.pop_back();
}

/// The first foot stays where it is, the far one does not move across the line between them.
void OnFeet::hold_sideways(Solution& u) const {
    const auto first = three_[0].points.front(), far = three_[1].points.front();
    const Point shift = u.displacement(first);
    const Point slips = u.displacement(far) - shift, line = points_[far] - points_[first];
    const double turn = three_[1].fix[1] ? -slips.y() / line.x() : slips.x() / line.y();
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const auto at = static_cast<Eigen::Index>(6 * i);
        const Point from = points_[i] - points_[first];
        u.freedoms.segment<2>(at) += turn * Point2(-from.y(), from.x()) - shift.head<2>();
        u.freedoms[at + 5] += turn;
    }
}

/// The ground is above the tool as it is drawn: it pushes against the pull.
OnFeet::Reached OnFeet::reach(const Solution& loose, bool may_lift) const {
    const auto n = feet_.size();
    const auto z = [](const Solution& u, std::uint32_t i) { return u.displacement(i).z(); };
    Eigen::MatrixXd flex(n, n), arms(n, 3);
    Eigen::VectorXd own(n);
    for (std::size_t i = 0; i < n; ++i) {
        const auto row = static_cast<Eigen::Index>(i);
        own[row] = z(loose, feet_[i]);
        arms.row(row) << 1, points_[feet_[i]].x(), points_[feet_[i]].y();
        for (std::size_t j = 0; j < n; ++j) flex(row, static_cast<Eigen::Index>(j)) = z(unit_[j], feet_[i]);
    }
    // What the three places bear under the load passes to the feet: the same force with the same moments.
    Eigen::Vector3d wanted = Eigen::Vector3d::Zero();
    for (const auto& [point, force] : loose.held)
        wanted += force.z() * Eigen::Vector3d(1, points_[point].x(), points_[point].y());
    Reached out;
    std::vector<char> on(n, 1);
    for (int round = 0; round < 200; ++round) {
        std::vector<Eigen::Index> held;
        for (std::size_t i = 0; i < n; ++i) {
            if (on[i]) held.push_back(static_cast<Eigen::Index>(i));
        }
        const auto m = static_cast<Eigen::Index>(held.size());
        if (m < 3) {
            out.stands = false;
            return out;
        }
        Eigen::MatrixXd A = Eigen::MatrixXd::Zero(m + 3, m + 3);
        Eigen::VectorXd b(m + 3);
        for (Eigen::Index i = 0; i < m; ++i) {
            for (Eigen::Index j = 0; j < m; ++j)
                A(i, j) = flex(held[static_cast<std::size_t>(i)], held[static_cast<std::size_t>(j)]);
            A.block<1, 3>(i, m) = arms.row(held[static_cast<std::size_t>(i)]);
            A.block<3, 1>(m, i) = arms.row(held[static_cast<std::size_t>(i)]).transpose();
            b[i] = -own[held[static_cast<std::size_t>(i)]];
        }
        b.tail<3>() = wanted;
        const Eigen::VectorXd x = A.fullPivLu().solve(b);
        out.force = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(n));
        for (Eigen::Index i = 0; i < m; ++i) out.force[held[static_cast<std::size_t>(i)]] = x[i];
        out.tilt = x.tail<3>();
        if (!x.allFinite() || (A * x - b).norm() > 1e-6 * (1 + b.norm())) {
            out.stands = false;
            return out;
        }
        if (!may_lift) return out;
        // The foot that pulls most lets go; one that would sink into the ground comes back.
        const double size = std::max(1e-9, out.force.cwiseAbs().maxCoeff());
        Eigen::Index worst = -1;
        for (const auto i : held) {
            if (out.force[i] > 1e-7 * size && (worst < 0 || out.force[i] > out.force[worst])) worst = i;
        }
        if (worst >= 0) {
            on[static_cast<std::size_t>(worst)] = 0;
            continue;
        }
        const Eigen::VectorXd place = own + flex * out.force + arms * out.tilt;
        Eigen::Index sunk = -1;
        for (Eigen::Index i = 0; i < place.size(); ++i) {
            if (!on[static_cast<std::size_t>(i)] && place[i] > 1e-10 && (sunk < 0 || place[i] > place[sunk]))
                sunk = i;
        }
        if (sunk < 0) break;
        on[static_cast<std::size_t>(sunk)] = 1;
    }
    out.lifted = static_cast<int>(std::count(on.begin(), on.end(), 0));
    return out;
}

Stance OnFeet::settled(const Solution& loose, bool may_lift) const {
    Stance out;
    auto reached = reach(loose, may_lift);
    if (!reached.stands && may_lift) {
        out.tips = true;
        reached = reach(loose, false);
    }
    out.lifted = reached.lifted;
    out.solution = loose;
    for (std::size_t i = 0; i < feet_.size(); ++i)
        add(out.solution, unit_[i], reached.force[static_cast<Eigen::Index>(i)]);
    // The three places bear nothing along the pull any more; what the feet push is the reaction.
    out.solution.reactions.z() += reached.force.sum();
    out.solution.held.clear();
    for (std::size_t i = 0; i < feet_.size(); ++i)
        out.solution.held.emplace_back(feet_[i],
                                       reached.force[static_cast<Eigen::Index>(i)] * Point::UnitZ());
    // z = tilt0 + tilt1·x + tilt2·y is a shift and a turn about (tilt2, −tilt1, 0).
    const Point turn(reached.tilt[2], -reached.tilt[1], 0);
    for (std::size_t i = 0; i < points_.size(); ++i) {
        const auto at = static_cast<Eigen::Index>(6 * i);
        out.solution.freedoms.segment<3>(at) += reached.tilt[0] * Point::UnitZ() + turn.cross(points_[i]);
        out.solution.freedoms.segment<3>(at + 3) += turn;
    }
    hold_sideways(out.solution);
    measure(out.solution);
    return out;
}

Stance OnFeet::standing(double sign) const {
    auto loose = weight_;
    loose.freedoms *= sign;
    loose.reactions *= sign;
    for (auto& [point, force] : loose.held) force *= sign;
    return settled(loose, sign > 0);
}

std::vector<Stance> OnFeet::pushed(const std::vector<Loads>& loads) const {
    const auto rest = standing(1);
    std::vector<Stance> out;
    for (auto& load : system_->solve(loads)) {
        add(load, weight_, 1);
        for (const auto& [point, force] : weight_.held) {
            const auto at = std::find_if(load.held.begin(), load.held.end(),
                                         [&](const auto& h) { return h.first == point; });
            if (at == load.held.end())
                load.held.emplace_back(point, force);
            else
                at->second += force;
        }
        auto stance = settled(load, true);
        // Held feet under both loads less held feet under one is the load alone.
        const auto& less = stance.tips ? settled(weight_, false).solution : rest.solution;
        add(stance.solution, less, -1);
        measure(stance.solution);
        out.push_back(std::move(stance));
    }
    return out;
}

std::vector<Solution> OnFeet::held(const std::vector<Loads>& loads) const {
    std::vector<Solution> out;
    for (const auto& load : system_->solve(loads)) out.push_back(settled(load, false).solution);
    return out;
}

}  // namespace jig::back
