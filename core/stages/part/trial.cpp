#include "core/stages/part/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/patches.hpp"
#include "core/science/shell/system.hpp"
#include "core/stages/part/face.hpp"
#include "core/stages/part/held.hpp"
#include "core/stages/part/made.hpp"
#include "core/stages/whereabouts.hpp"

namespace jig::part {
namespace {

using shell_fe::Loads;
using shell_fe::System;

/// Strains are means over a patch of this radius, m: at a corner of a support they are the mesh's own.
constexpr double kPatch = 0.025;
/// Buckling is looked for up to so many times the load, or four times what it has to hold.
constexpr double kBucklesUpTo = 10;
/// Least share by which a fine answer may be out.
constexpr double kOut = 0.05;
/// Shares below this are nobody's concern.
constexpr double kNothing = 1e-9;

/// A push as forces on the points about it, even over its patch, and what it comes to.
struct Pushed {
    std::vector<shell_fe::NodeForce> nodes;
    Point at = Point::Zero(), force = Point::Zero();
    double weakest = 0;  ///< Pa that a core under it stands; 0 without a core there
    bool beside = false;
};
Pushed pushed(const Push& push, const TriangleMesh& mesh, const TriangleMesh& face, const Frame& frame,
              const NearestFace& nearest, const Made& made) {
    const auto place = under(face, frame, {push.along, push.across});
    Pushed out;
    out.beside = place.beside;
    out.at = Point(frame.u.dot(place.at), frame.v.dot(place.at), frame.w.dot(place.at));
    const Point normal = mesh.area_vector2(place.face).normalized();
    out.force = -push.force * normal;
    out.weakest = made.stands(place.face, out.at, push.size);
    const Point a = (mesh.corner(place.face, 1) - mesh.corner(place.face, 0)).normalized(),
                b = normal.cross(a);
    // Places evenly over the patch, by the sunflower's angle.
    constexpr int kPlaces = 96;
    std::map<std::uint32_t, double> shares;
    for (int k = 0; k < kPlaces; ++k) {
        const double r = push.size / 2 * std::sqrt((k + 0.5) / kPlaces), turn = 2.399963229728653 * k;
        const Point p = out.at + r * (std::cos(turn) * a + std::sin(turn) * b);
        const auto f = nearest.at(p);
        const Point share = corner_shares(mesh, f, p);
        for (std::size_t c = 0; c < 3; ++c)
            shares[mesh.triangles[f][c]] += share[static_cast<Eigen::Index>(c)] / kPlaces;
    }
    for (const auto& [point, share] : shares) out.nodes.push_back({point, share * out.force});
    return out;
}

Point direction(PartWeight way) {
    switch (way) {
        case PartWeight::onto_outside:
            return -Point::UnitZ();
        case PartWeight::onto_inside:
            return Point::UnitZ();
        case PartWeight::along:
            return Point::UnitX();
        case PartWeight::across:
            return Point::UnitY();
    }
    return Point::Zero();
}

std::string words_of(const PartLoad& load, double mass) {
    std::string out;
    const auto add = [&](const std::string& words) { out += (out.empty() ? "" : ", ") + words; };
    if (load.pressure != 0)
        add(quantity(Kind::strength, std::abs(load.pressure)) +
            (load.pressure > 0 ? " onto its tool face" : " off its tool face"));
    if (load.weight != 0)
        add((load.weight == 1 ? std::string("its own ") : fmt::format("{:g} times its own ", load.weight)) +
            quantity(Kind::mass, mass) + " " + std::string(jig::said(load.way)));
    for (const auto& p : load.pushes) {
        if (&p != &load.pushes.front() && load.pushes.size() > 3) continue;
        add(quantity(Kind::force, std::abs(p.force)) + (p.force < 0 ? " off it" : "") + " on a patch of " +
            quantity(Kind::length, p.size) +
            (load.pushes.size() > 3 ? fmt::format(" and {} more pushes", load.pushes.size() - 1) : ""));
    }
    return out.empty() ? "nothing acts" : out;
}

}  // namespace

std::string said(GivesWay way) {
    switch (way) {
        case GivesWay::nothing:
            return "nothing gives";
        case GivesWay::cracks:
            return "its resin cracks";
        case GivesWay::fibres:
            return "its fibres break";
        case GivesWay::core_shears:
            return "its core shears";
        case GivesWay::wrinkles:
            return "a skin wrinkles";
        case GivesWay::crushes:
            return "the core is crushed under a push";
        case GivesWay::buckles:
            return "it buckles";
    }
    return {};
}

std::pair<double, GivesWay> LoadResult::lets_go() const {
    std::pair<double, GivesWay> out{kNothing, GivesWay::nothing};
    const auto ask = [&](double share, GivesWay way) {
        if (share > out.first) out = {share, way};
    };
    ask(fibres, GivesWay::fibres);
    ask(core_shear, GivesWay::core_shears);
    ask(wrinkles, GivesWay::wrinkles);
    ask(crushes, GivesWay::crushes);
    ask(buckles > 0 ? 1 / buckles : 0, GivesWay::buckles);
    if (out.second == GivesWay::nothing) out.first = 0;
    return out;
}

std::pair<double, GivesWay> LoadResult::most() const {
    const auto other = lets_go();
    return cracks > std::max(other.first, kNothing) ? std::pair{cracks, GivesWay::cracks} : other;
}

DutyAsked duty_asked(const Choices& c) {
    DutyAsked out;
    if (c.duty.loads.empty()) return out;
    out.duty = c.duty;
    out.stack.resin = c.resin;
    out.stack.how = c.how;
    out.stack.layers = c.layers;
    out.stack.zones = c.zones;
    for (auto insert : c.inserts) {
        // What it is called and has to bear is nothing to the part.
        insert.name.clear();
        insert.pull = insert.push = 0;
        insert.bolt = Insert{}.bolt;
        if (insert.kind == InsertKind::potted) insert.block = Insert{}.block;
        out.stack.inserts.push_back(std::move(insert));
    }
    out.stack.drape = c.drape;
    for (auto& z : out.stack.zones) z.name.clear();
    return out;
}

Trial try_out(const DutyAsked& asked, const TriangleMesh& face, const Frame& frame, const Draped& draped,
              const DutyLibrary& shop, const Trial* coarse, Progress& progress) {
    const auto& duty = asked.duty;
    if (duty.loads.size() > kMostLoads)
        throw InputError("part", fmt::format("it has {} loads, more than {}", duty.loads.size(), kMostLoads),
                         "take some together");
    if (duty.places.size() > kMostPlaces)
        throw InputError(
            "part", fmt::format("it is bolted at {} places, more than {}", duty.places.size(), kMostPlaces),
            "bolts closer than a hand's width hold no better");
    Trial out;
    out.fine = coarse != nullptr;
    out.mesh = face;
    for (auto& p : out.mesh.points) p = Point(frame.u.dot(p), frame.v.dot(p), frame.w.dot(p));
    const auto& mesh = out.mesh;
    double edges = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f)
        edges += (mesh.corner(f, 1) - mesh.corner(f, 0)).norm();
    out.edge = edges / static_cast<double>(mesh.triangles.size());
    progress.report(0.1, "laying up the part on trial");
    const Made made(asked, mesh, face, frame, draped, shop);
    out.unjudged = made.unjudged();
    const auto supports = held_by(duty, mesh, face, frame, out.notes);
    for (const auto& s : supports) out.held.insert(out.held.end(), s.points.begin(), s.points.end());
    shell_fe::Model model;
    model.mesh = mesh;
    model.skins = made.skins();
    model.skin = made.place_of();
    progress.report(0.3, "holding the part on trial");
    std::optional<System> system;
    try {
        system.emplace(std::move(model), supports, progress);
    } catch (const InputError& e) {
        throw InputError("part", "on trial " + e.problem(), "hold it at more places, or by its rim");
    }
    out.mass = system->mass();
    out.freedoms = system->freedoms();
    progress.report(0.6, "loading the part");
    const NearestFace nearest(mesh);
    std::vector<Loads> loads;
    std::vector<double> crushes;
    for (std::size_t l = 0; l < duty.loads.size(); ++l) {
        const auto& load = duty.loads[l];
        if (load.pushes.size() > kMostPushes)
            throw InputError("part", fmt::format("load {} has more than {} pushes", load.name, kMostPushes),
                             "a pressure says more than so many");
        Loads one;
        one.pressure = load.pressure;
        one.gravity = load.weight * kGravity * direction(load.way);
        double crush = 0;
        for (const auto& push : load.pushes) {
            auto p = pushed(push, mesh, face, frame, nearest, made);
            if (p.beside)
                out.notes.push_back("a push of " + load.name +
                                    " lies beside the face; it is taken at the point nearest to it");
            one.nodes.insert(one.nodes.end(), p.nodes.begin(), p.nodes.end());
            out.pushes.push_back({l, p.at, p.force});
            if (p.weakest > 0 && push.force > 0)
                crush = std::max(crush, push.force / (kPi / 4 * push.size * push.size) / p.weakest);
        }
        loads.push_back(std::move(one));
        crushes.push_back(crush);
    }
    auto solved = system->solve(loads);
    std::vector<OnRim> on_rim(loads.size());
    if (duty.hold == PartHold::rests) on_rim = rested(*system, supports, loads, solved, progress);
    Point low = mesh.points[mesh.triangles[0][0]], high = low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            low = low.cwiseMin(mesh.points[i]);
            high = high.cwiseMax(mesh.points[i]);
        }
    }
    for (std::size_t l = 0; l < solved.size(); ++l) {
        progress.report(0.7 + 0.3 * static_cast<double>(l) / static_cast<double>(solved.size()),
                        "judging load " + duty.loads[l].name);
        const auto& u = solved[l];
        LoadResult r;
        r.name = duty.loads[l].name;
        r.how = words_of(duty.loads[l], out.mass);
        r.crushes = crushes[l];
        r.moves = u.largest;
        r.reactions = u.reactions.z();
        std::size_t at = mesh.triangles[0][0];
        for (std::size_t i = 0; i < mesh.points.size(); ++i) {
            const Point moved = u.displacement(i);
            if (moved.norm() > u.displacement(at).norm()) at = i;
            r.field.push_back(moved.cast<float>());
        }
        r.worst = mesh.points[at];
        r.where = whereabouts(r.worst, low, high);
        // Cracks, fibres, core and wrinkles of each face.
        Eigen::ArrayX4d shares(static_cast<Eigen::Index>(mesh.triangles.size()), 4);
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            const auto use = made.use(f, system->strain(f, u));
            shares.row(static_cast<Eigen::Index>(f)) << use.cracks, use.fibres, use.core, use.wrinkles;
        }
        const Eigen::Array4d most = greatest_patch_means(mesh, shares, kPatch);
        r.cracks = most[0];
        r.fibres = most[1];
        r.core_shear = most[2];
        r.wrinkles = most[3];
        r.lifts = on_rim[l].held_down;
        r.lifted = on_rim[l].lifted;
        r.lies = std::move(on_rim[l].lies);
        const auto* before = coarse != nullptr && l < coarse->loads.size() ? &coarse->loads[l] : nullptr;
        if (before != nullptr && before->buckles == 0) {
            // A finer mesh buckles a little sooner, not at a fraction of what the coarse one was searched to.
            r.none_below = before->none_below;
        } else if (u.largest > 0) {
            // What has come off its rim is not held there against buckling either.
            std::optional<System> lying;
            if (!on_rim[l].bears.empty()) {
                auto where = supports;
                where[0].points = on_rim[l].bears;
                lying.emplace(system->model(), where, progress);
            }
            const auto found =
                (lying ? *lying : *system).buckling(u, 0, progress, std::max(kBucklesUpTo, 4 * duty.factor));
            r.buckles = found.factor;
            r.none_below = found.none_below;
        }
        if (before != nullptr) r.differs = std::max(std::abs(r.moves - before->moves), kOut * r.moves);
        out.loads.push_back(std::move(r));
    }
    std::sort(out.notes.begin(), out.notes.end());
    out.notes.erase(std::unique(out.notes.begin(), out.notes.end()), out.notes.end());
    progress.report(1, "tried");
    return out;
}

}  // namespace jig::part
