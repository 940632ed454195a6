#include "core/science/shell/contact.hpp"

#include <algorithm>
#include <cmath>
#include <Eigen/Dense>

namespace jig::shell_fe {

std::optional<std::vector<Support>> three_of(const std::vector<Point>& points,
                                             const std::vector<std::uint32_t>& on, double least) {
    if (on.size() < 3) return {};
    const auto first = on.front();
    const auto far = *std::max_element(on.begin(), on.end(), [&](std::uint32_t a, std::uint32_t b) {
        return (points[a] - points[first]).head<2>().norm() < (points[b] - points[first]).head<2>().norm();
    });
    const Point2 line = (points[far] - points[first]).head<2>();
    const auto off_line = [&](std::uint32_t i) {
        const Point2 to = (points[i] - points[first]).head<2>();
        return std::abs(line.x() * to.y() - line.y() * to.x()) / std::max(1e-9, line.norm());
    };
    const auto third = *std::max_element(
        on.begin(), on.end(), [&](std::uint32_t a, std::uint32_t b) { return off_line(a) < off_line(b); });
    if (!(off_line(third) > least)) return {};
    // Sideways the far one is held across the line between the two, along the axis that is nearer to it.
    const bool along_x = std::abs(line.x()) >= std::abs(line.y());
    return std::vector<Support>{{{}, {true, true, true, false, false, false}, {first}},
                                {{}, {!along_x, along_x, true, false, false, false}, {far}},
                                {{}, {false, false, true, false, false, false}, {third}}};
}

struct OnPlaces::Reached {
    Eigen::VectorXd force;                 ///< N along z, from the ground on each place
    Eigen::Vector3d tilt = Point::Zero();  ///< of the whole: shift along z, slopes along x and y
    std::vector<char> on;
};

OnPlaces::OnPlaces(std::shared_ptr<const System> system, std::vector<std::uint32_t> places,
                   std::vector<Support> three, double up, Progress& progress)
    : system_(std::move(system)), places_(std::move(places)), three_(std::move(three)), up_(up) {
    constexpr std::size_t kAtOnce = 64;  // what solves many at once costs little more than one, and has room
    const auto& points = system_->model().mesh.points;
    const auto n = static_cast<Eigen::Index>(places_.size());
    unit_.resize(static_cast<Eigen::Index>(6 * points.size()), n);
    flex_.resize(n, n);
    arms_.resize(n, 3);
    for (std::size_t from = 0; from < places_.size(); from += kAtOnce) {
        progress.check();
        std::vector<Loads> loads;
        for (auto k = from; k < std::min(places_.size(), from + kAtOnce); ++k) {
            Loads l;
            l.nodes = {{places_[k], Point::UnitZ()}};
            loads.push_back(std::move(l));
        }
        const auto solved = system_->solve(loads);
        for (std::size_t k = 0; k < solved.size(); ++k)
            unit_.col(static_cast<Eigen::Index>(from + k)) = solved[k].freedoms;
    }
    for (Eigen::Index i = 0; i < n; ++i) {
        const auto place = places_[static_cast<std::size_t>(i)];
        flex_.row(i) = unit_.row(6 * static_cast<Eigen::Index>(place) + 2);
        arms_.row(i) << 1, points[place].x(), points[place].y();
    }
}

/// What those that are `on` bear while they stand level, whichever way; none where they do not hold it up.
std::optional<OnPlaces::Reached> OnPlaces::bear(const std::vector<char>& on, const Eigen::VectorXd& own,
                                                const Eigen::Vector3d& wanted) const {
    std::vector<Eigen::Index> held;
    for (std::size_t i = 0; i < on.size(); ++i) {
        if (on[i] != 0) held.push_back(static_cast<Eigen::Index>(i));
    }
    const auto m = static_cast<Eigen::Index>(held.size());
    if (m < 3) return {};
    Eigen::MatrixXd A = Eigen::MatrixXd::Zero(m + 3, m + 3);
    Eigen::VectorXd b(m + 3);
    A.topLeftCorner(m, m) = flex_(held, held);
    A.topRightCorner(m, 3) = arms_(held, Eigen::all);
    A.bottomLeftCorner(3, m) = A.topRightCorner(m, 3).transpose();
    b.head(m) = -own(held);
    b.tail<3>() = wanted;
    // A few may lie in one line, which only full pivots tell; of many they hardly do.
    const Eigen::VectorXd x =
        m <= 16 ? Eigen::VectorXd(A.fullPivLu().solve(b)) : Eigen::VectorXd(A.partialPivLu().solve(b));
    if (!x.allFinite() || (A * x - b).norm() > 1e-6 * (1 + b.norm())) return {};
    Reached out;
    out.force = Eigen::VectorXd::Zero(static_cast<Eigen::Index>(on.size()));
    for (Eigen::Index i = 0; i < m; ++i) out.force[held[static_cast<std::size_t>(i)]] = x[i];
    out.tilt = x.tail<3>();
    out.on = on;
    return out;
}

std::optional<OnPlaces::Reached> OnPlaces::reach(const Solution& loose, bool may_lift,
                                                 bool all_at_once) const {
    constexpr int kPatience = 4;     // rounds of exchanging all that leave no fewer wrong than the best did
    constexpr double kSunk = 1e-10;  // m
    const auto& points = system_->model().mesh.points;
    Eigen::VectorXd own(static_cast<Eigen::Index>(places_.size()));
    for (std::size_t i = 0; i < places_.size(); ++i)
        own[static_cast<Eigen::Index>(i)] = loose.displacement(places_[i]).z();
    // What the three places bear under the load passes to all: the same force with the same moments.
    Eigen::Vector3d wanted = Eigen::Vector3d::Zero();
    for (const auto& [point, force] : loose.held)
        wanted += force.z() * Eigen::Vector3d(1, points[point].x(), points[point].y());
    std::vector<char> on(places_.size(), 1);
    auto fewest = places_.size() + 1;
    int patience = all_at_once ? kPatience : 0;
    const auto rounds = 200 + 4 * places_.size();
    for (std::size_t round = 0; round < rounds; ++round) {
        auto reached = bear(on, own, wanted);
        if (!reached || !may_lift) return reached;
        const Eigen::VectorXd at = up_ * (own + flex_ * reached->force + arms_ * reached->tilt);
        const double size = std::max(1e-9, reached->force.cwiseAbs().maxCoeff());
        // Places that pull let go; those that would sink into the ground come back.
        std::vector<std::size_t> wrong;
        std::size_t most_pulls = places_.size(), most_sunk = places_.size();
        for (std::size_t i = 0; i < places_.size(); ++i) {
            const auto k = static_cast<Eigen::Index>(i);
            if (on[i] != 0 && up_ * reached->force[k] < -1e-7 * size) {
                wrong.push_back(i);
                if (most_pulls == places_.size() ||
                    up_ * reached->force[k] < up_ * reached->force[static_cast<Eigen::Index>(most_pulls)])
                    most_pulls = i;
            } else if (on[i] == 0 && at[k] < -kSunk) {
                wrong.push_back(i);
                if (most_sunk == places_.size() || at[k] < at[static_cast<Eigen::Index>(most_sunk)])
                    most_sunk = i;
            }
        }
        if (wrong.empty()) return reached;
        if (wrong.size() < fewest) {
            fewest = wrong.size();
            if (all_at_once) patience = kPatience;
        } else if (patience > 0) {
            --patience;
        }
        if (patience > 0) {
            for (const auto i : wrong) on[i] = on[i] == 0 ? 1 : 0;
        } else {
            const auto one = most_pulls < places_.size() ? most_pulls : most_sunk;
            on[one] = on[one] == 0 ? 1 : 0;
        }
    }
    return {};
}

Rested OnPlaces::settle(const Solution& loose, bool may_lift) const {
    Rested out;
    constexpr std::size_t kFew = 32;
    std::optional<Reached> reached;
    if (may_lift && places_.size() > kFew) reached = reach(loose, true, true);
    if (!reached) reached = reach(loose, may_lift, false);
    if (!reached && may_lift) {
        out.stands = false;
        reached = reach(loose, false, false);
    }
    if (!reached)
        throw InputError("supports", "the places that it stands on do not hold it up",
                         "give it more places, further apart");
    out.bears = reached->on;
    out.lifted = static_cast<int>(std::count(out.bears.begin(), out.bears.end(), 0));
    out.solution = loose;
    auto& u = out.solution;
    u.freedoms += unit_ * reached->force;
    // The three places bear nothing along z any more; what all push is the same in sum.
    u.held.clear();
    for (std::size_t i = 0; i < places_.size(); ++i)
        u.held.emplace_back(places_[i], reached->force[static_cast<Eigen::Index>(i)] * Point::UnitZ());
    // z = tilt0 + tilt1·x + tilt2·y is a shift and a turn about (tilt2, −tilt1, 0).
    const auto& points = system_->model().mesh.points;
    const Point turn(reached->tilt[2], -reached->tilt[1], 0);
    for (std::size_t i = 0; i < points.size(); ++i) {
        const auto at = static_cast<Eigen::Index>(6 * i);
        u.freedoms.segment<3>(at) += reached->tilt[0] * Point::UnitZ() + turn.cross(points[i]);
        u.freedoms.segment<3>(at + 3) += turn;
    }
    hold_sideways(u);
    u.measure();
    return out;
}

void OnPlaces::hold_sideways(Solution& u) const {
    const auto& points = system_->model().mesh.points;
    const auto first = three_[0].points.front(), far = three_[1].points.front();
    const Point shift = u.displacement(first);
    const Point slips = u.displacement(far) - shift, line = points[far] - points[first];
    const double turn = three_[1].fix[1] ? -slips.y() / line.x() : slips.x() / line.y();
    for (std::size_t i = 0; i < points.size(); ++i) {
        const auto at = static_cast<Eigen::Index>(6 * i);
        const Point from = points[i] - points[first];
        u.freedoms.segment<2>(at) += turn * Point2(-from.y(), from.x()) - shift.head<2>();
        u.freedoms[at + 5] += turn;
    }
}

}  // namespace jig::shell_fe
