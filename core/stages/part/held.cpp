#include "core/stages/part/held.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/mesh/topology.hpp"
#include "core/science/shell/contact.hpp"
#include "core/stages/part/face.hpp"

namespace jig::part {

using shell_fe::Loads;
using shell_fe::Solution;
using shell_fe::Support;
using shell_fe::System;

namespace {

/// What slides freely has no place sideways: it is told from where its rim lies in the mean.
void centre_on(const std::vector<std::uint32_t>& rim, const TriangleMesh& mesh, Solution& u) {
    Point2 middle = Point2::Zero(), shift = Point2::Zero();
    for (const auto i : rim) {
        middle += mesh.points[i].head<2>() / static_cast<double>(rim.size());
        shift += u.displacement(i).head<2>() / static_cast<double>(rim.size());
    }
    double turns = 0, size = 0;
    for (const auto i : rim) {
        const Point2 arm = mesh.points[i].head<2>() - middle, moved = u.displacement(i).head<2>();
        turns += arm.x() * moved.y() - arm.y() * moved.x();
        size += arm.squaredNorm();
    }
    const double turn = size > 0 ? turns / size : 0;
    for (std::size_t i = 0; i < mesh.points.size(); ++i) {
        const auto at = static_cast<Eigen::Index>(6 * i);
        const Point2 arm = mesh.points[i].head<2>() - middle;
        u.freedoms.segment<2>(at) -= shift + turn * Point2(-arm.y(), arm.x());
        u.freedoms[at + 5] -= turn;
    }
    u.measure();
}

}  // namespace

std::vector<Support> held_by(const Duty& duty, const TriangleMesh& mesh, const TriangleMesh& face,
                             const Frame& frame, std::vector<std::string>& notes) {
    std::vector<Support> out;
    if (duty.hold == PartHold::places) {
        if (duty.places.empty())
            throw InputError("part", "it is to be bolted at places, and none is given",
                             "give them, or let it rest on its rim");
        Support bolts;
        bolts.fix = {true, true, true, false, false, false};
        for (const auto& spot : duty.places) {
            const auto place = under(face, frame, spot);
            if (place.beside)
                notes.push_back("a bolt lies beside the face; it is taken at the point nearest to it");
            std::uint32_t next = face.triangles[place.face][0];
            for (const auto i : face.triangles[place.face]) {
                if ((face.points[i] - place.at).norm() < (face.points[next] - place.at).norm()) next = i;
            }
            bolts.points.push_back(next);
        }
        std::sort(bolts.points.begin(), bolts.points.end());
        bolts.points.erase(std::unique(bolts.points.begin(), bolts.points.end()), bolts.points.end());
        out.push_back(std::move(bolts));
        return out;
    }
    const auto loops = rim_loops(mesh, topology_of(mesh));
    if (loops.empty())
        throw InputError("part", "its face has no rim to be held by", "bolt it at places instead");
    const auto& rim = loops.front();
    const bool clamped = duty.hold == PartHold::clamped, pinned = clamped || duty.hold == PartHold::pinned;
    out.push_back({{}, {pinned, pinned, true, clamped, clamped, clamped}, rim});
    if (pinned) return out;
    // It may slide: two of its points keep it from wandering, and strain nothing.
    const auto far = [&](std::uint32_t from) {
        return *std::max_element(rim.begin(), rim.end(), [&](std::uint32_t a, std::uint32_t b) {
            return (mesh.points[a] - mesh.points[from]).head<2>().norm() <
                   (mesh.points[b] - mesh.points[from]).head<2>().norm();
        });
    };
    const auto first = far(rim.front()), second = far(first);
    const Point across = mesh.points[second] - mesh.points[first];
    const bool along_x = std::abs(across.x()) >= std::abs(across.y());
    out.push_back({{}, {true, true, false, false, false, false}, {first}});
    out.push_back({{}, {!along_x, along_x, false, false, false, false}, {second}});
    return out;
}

std::vector<OnRim> rested(const System& system, const std::vector<Support>& supports,
                          const std::vector<Loads>& loads, std::vector<Solution>& solved,
                          Progress& progress) {
    constexpr double kLine = 1e-3;      // m across which a rim is no more than a line
    constexpr double kClear = 0.01;     // of the largest displacement
    constexpr double kRounding = 1e-6;  // of what it bears, by which rounding pulls
    std::vector<OnRim> out(loads.size());
    const auto& rim = supports[0].points;
    const auto first = supports[1].points.front();
    std::optional<shell_fe::OnPlaces> ground;
    for (std::size_t l = 0; l < loads.size(); ++l) {
        centre_on(rim, system.model().mesh, solved[l]);
        double pulls = 0, all = 0;
        for (const auto& [point, force] : solved[l].held) {
            pulls += std::max(0.0, -force.z());
            all += std::abs(force.z());
        }
        if (pulls <= kRounding * all) continue;
        out[l].held_down = pulls;
        if (!ground) {
            progress.report(0.65, "letting the rim lift");
            std::vector<std::uint32_t> places{first};
            std::copy_if(rim.begin(), rim.end(), std::back_inserter(places),
                         [&](std::uint32_t i) { return i != first; });
            auto three = shell_fe::three_of(system.model().mesh.points, places, kLine);
            if (!three) continue;
            auto held = std::make_shared<const System>(system.model(), *three, progress);
            ground.emplace(std::move(held), std::move(places), *std::move(three), 1, progress);
        }
        auto rests = ground->settle(ground->system().solve(loads[l]), true);
        if (!rests.stands) continue;
        solved[l] = std::move(rests.solution);
        // What has come off is judged by how far it gives, not by how far it slid from one of its points.
        centre_on(rim, system.model().mesh, solved[l]);
        out[l].held_down = 0;
        for (std::size_t i = 0; i < rests.bears.size(); ++i) {
            if (rests.bears[i] != 0) out[l].bears.push_back(solved[l].held[i].first);
        }
        // What hangs clear by next to nothing has not come off.
        const auto lies = [&](std::uint32_t i) {
            return solved[l].displacement(i).z() <= kClear * solved[l].largest;
        };
        double length = 0, off = 0;
        for (std::size_t i = 0; i < rim.size(); ++i) {
            const auto a = rim[i], b = rim[(i + 1) % rim.size()];
            const double edge = (system.model().mesh.points[b] - system.model().mesh.points[a]).norm();
            length += edge;
            off += edge * ((lies(a) ? 0 : 0.5) + (lies(b) ? 0 : 0.5));
            if (lies(a)) out[l].lies.push_back(a);
        }
        out[l].lifted = off / length;
        if (off == 0) out[l].lies.clear();
    }
    return out;
}

}  // namespace jig::part
