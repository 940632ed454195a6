#include "core/stages/part/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "core/science/laminate/strength.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/science/mesh/patches.hpp"
#include "core/science/shell/system.hpp"
#include "core/stages/part/face.hpp"
#include "core/stages/part/held.hpp"
#include "core/stages/whereabouts.hpp"

namespace jig::part {
namespace {

using shell_fe::Loads;
using shell_fe::System;

/// Cloth that lies turned by less than this shares a laminate, rad.
constexpr double kTurnStep = 2 * kPi / 180;
/// Strains are means over a patch of this radius, m: at a corner of a support they are the mesh's own.
constexpr double kPatch = 0.025;
/// Buckling is looked for up to so many times the load, or four times what it has to hold.
constexpr double kBucklesUpTo = 10;
/// Least share by which a fine answer may be out.
constexpr double kOut = 0.05;
/// Shares below this are nobody's concern.
constexpr double kNothing = 1e-9;

struct Limits {
    double pulled = 0, pressed = 0;
};
/// Strains along its fibres at which a ply breaks, pulled and pressed: its own, or typical of laminates of
/// the fibre by hand.
Limits limits_of(const Reinforcement& r) {
    Limits usual{0.016, 0.011};
    if (r.fibre == FibreKind::carbon) usual = {0.011, 0.0075};
    if (r.fibre == FibreKind::aramid) usual = {0.015, 0.0035};
    return {r.breaks_pulled > 0 ? r.breaks_pulled : usual.pulled,
            r.breaks_pressed > 0 ? r.breaks_pressed : usual.pressed};
}

/// One ply as strains are read in it.
struct Read {
    double z0 = 0, z1 = 0;  ///< m from the plane that strains are told of
    StackPly ply;
    const Reinforcement* cloth = nullptr;
    const Core* core = nullptr;
    Eigen::Vector2d shear = Eigen::Vector2d::Zero();  ///< largest share of a transverse force, 1/m
};

/// A laminate where certain zones lie and cloth is turned in a certain way.
struct Place {
    Laminate laminate;
    std::vector<Read> plies;
    std::vector<SkinOver> skins;
};

/// What the face is made of, face by face.
class Made {
  public:
    Made(const DutyAsked& asked, const TriangleMesh& upright, const TriangleMesh& face, const Frame& frame,
         const Draped& draped, const DutyLibrary& shop)
        : asked_(asked), shop_(shop), resin_(need(shop.resins, asked.stack.resin, "part resin")) {
        common_ = stack_under(0);
        for (const auto& l : common_) thickness_ += l.second.ply.thickness;
        const auto zones = zones_asked(asked.stack);
        const auto bits = draped.face ? zones_on(zones, frame, *draped.face, face)
                                      : std::vector<std::uint32_t>(face.triangles.size(), 0);
        std::optional<NearestFace> nearest;
        if (draped.face && !draped.face->triangles.empty() && !draped.nets.empty())
            nearest.emplace(*draped.face);
        const auto turned_up = [&](const Point& d) {
            return Point(frame.u.dot(d), frame.v.dot(d), frame.w.dot(d));
        };
        for (std::size_t f = 0; f < face.triangles.size(); ++f) {
            const Point normal = upright.area_vector2(f).normalized();
            // Where the length runs into the wall, angles are told from the width.
            const bool width = normal.cross(Point::UnitX()).norm() < 0.2;
            const Point zero = width ? Point::UnitY() : Point::UnitX();
            const Point x = (zero - zero.dot(normal) * normal).normalized(), y = normal.cross(x);
            std::vector<int> turns;
            if (nearest) {
                const auto on = nearest->at(face.centre(f));
                for (const auto& net : draped.nets) {
                    double turn = net.angle + asked.stack.drape.turn - (width ? kPi / 2 : 0);
                    if (const auto threads = threads_on(net.drape, *draped.face, on)) {
                        const Point warp = turned_up(threads->warp), weft = turned_up(threads->weft);
                        const double along = std::atan2(y.dot(warp), x.dot(warp)),
                                     across = std::atan2(y.dot(weft), x.dot(weft));
                        // Sheared cloth is stiffest as its threads are together: half way between both.
                        turn = along + std::remainder(across - along - kPi / 2, 2 * kPi) / 2;
                    }
                    turns.push_back(static_cast<int>(std::lround(std::remainder(turn, kPi) / kTurnStep)));
                }
            }
            const auto [at, fresh] =
                known_.try_emplace({bits[f], width, turns}, static_cast<std::uint16_t>(places_.size()));
            if (fresh) {
                if (places_.size() >= 65000)
                    throw InputError("part", "its cloth lies in too many ways for one trial",
                                     "use fewer zones");
                places_.push_back(place(bits[f], width, turns, draped));
                skins_.push_back({places_.back().laminate, zero});
            }
            place_of_.push_back(at->second);
        }
    }

    [[nodiscard]] std::vector<shell_fe::Skin> skins() const { return skins_; }
    [[nodiscard]] const std::vector<std::uint16_t>& place_of() const { return place_of_; }
    [[nodiscard]] const Place& at(std::size_t face) const { return places_[place_of_[face]]; }
    [[nodiscard]] const Resin& resin() const { return resin_; }
    /// Cores without a known shear strength, each once.
    [[nodiscard]] std::vector<std::string> unjudged() const {
        std::set<std::string> names;
        for (const auto& p : places_) {
            for (const auto& ply : p.plies) {
                if (ply.core != nullptr && !(ply.core->shear_strength > 0)) names.insert(ply.core->name);
            }
        }
        return {names.begin(), names.end()};
    }

  private:
    std::vector<std::pair<Source, LaidLayer>> stack_under(std::uint32_t bits) const {
        std::vector<Layer> layers;
        std::vector<std::pair<Source, LaidLayer>> out;
        for (const auto& [layer, source] : sources_under(asked_.stack, bits)) {
            layers.push_back(layer);
            out.push_back({source, {}});
        }
        if (layers.empty())
            throw InputError("part zones", "they leave no layer at a place",
                             "add a layer, or take the zone away");
        auto laid = lay_up(layers, resin_, asked_.stack.how, shop_, "part");
        for (std::size_t i = 0; i < laid.size(); ++i) out[i].second = std::move(laid[i]);
        return out;
    }

    Place place(std::uint32_t bits, bool width, const std::vector<int>& turns, const Draped& draped) const {
        auto laid = bits == 0 ? common_ : stack_under(bits);
        // Strains are told from the inside out, the stack from the tool in.
        std::reverse(laid.begin(), laid.end());
        std::vector<StackPly> plies;
        std::vector<char> cores;
        Place out;
        for (const auto& [source, layer] : laid) {
            auto ply = layer.ply;
            ply.angle += asked_.stack.drape.turn - (width ? kPi / 2 : 0);
            for (std::size_t n = 0; n < turns.size(); ++n) {
                if (!draped.nets[n].carries(source)) continue;
                // What is woven has a net for itself and for itself turned by a quarter.
                const double off = std::remainder(layer.ply.angle - draped.nets[n].angle, kPi);
                ply.angle = kTurnStep * turns[n] + off;
            }
            Read read;
            read.ply = ply;
            if (layer.layer.kind == LayerKind::ply)
                read.cloth = find(shop_.reinforcements, layer.layer.material);
            if (layer.layer.kind == LayerKind::core) read.core = find(shop_.cores, layer.layer.material);
            cores.push_back(read.core != nullptr);
            out.plies.push_back(read);
            plies.push_back(ply);
        }
        const auto own = laminate(plies);
        // All stacks begin at the tool's face: thicker ones reach further in.
        const double by = (thickness_ - own.thickness) / 2;
        out.laminate = moved(own, by);
        const auto shear = shear_shares(plies);
        double z = by - own.thickness / 2;
        for (std::size_t i = 0; i < plies.size(); ++i) {
            out.plies[i].z0 = z;
            z += plies[i].thickness;
            out.plies[i].z1 = z;
            out.plies[i].shear = shear[i];
        }
        out.skins = skins_of(plies, cores);
        for (auto& skin : out.skins) {
            skin.low += by;
            skin.high += by;
        }
        return out;
    }

    const DutyAsked& asked_;
    const DutyLibrary& shop_;
    const Resin& resin_;
    std::vector<std::pair<Source, LaidLayer>> common_;
    double thickness_ = 0;
    std::vector<Place> places_;
    std::vector<shell_fe::Skin> skins_;
    std::map<std::tuple<std::uint32_t, bool, std::vector<int>>, std::uint16_t> known_;
    std::vector<std::uint16_t> place_of_;
};

/// Shares of strength that one face uses up.
struct Use {
    double cracks = 0, fibres = 0, core = 0, wrinkles = 0;
};
Use use_of(const Place& place, const shell_fe::FaceStrain& e, const Resin& resin) {
    Use out;
    const Eigen::Vector2d force = place.laminate.shear_stiffness.cwiseProduct(e.shear);
    for (const auto& p : place.plies) {
        if (p.core != nullptr) {
            if (p.core->shear_strength > 0)
                out.core = std::max(out.core, p.shear.cwiseProduct(force).norm() / p.core->shear_strength);
            continue;
        }
        const bool woven = p.cloth != nullptr && p.cloth->weave == Weave::cloth;
        const auto strain = ply_strain(e.middle, e.curvature, p.z0, p.z1, p.ply.angle, woven);
        out.cracks = std::max(out.cracks, strain.any / resin.strain_limit);
        if (p.cloth == nullptr) continue;
        const auto limits = limits_of(*p.cloth);
        if (p.cloth->weave == Weave::mat)
            out.fibres = std::max(out.fibres, strain.any / std::min(limits.pulled, limits.pressed));
        else
            out.fibres =
                std::max({out.fibres, strain.longest / limits.pulled, -strain.shortest / limits.pressed});
    }
    for (const auto& skin : place.skins) {
        const auto& core = *place.plies[skin.core].core;
        out.wrinkles = std::max(out.wrinkles, wrinkling_use(skin, core.E, core.G, e.middle, e.curvature));
    }
    return out;
}

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
    for (const auto& p : made.at(place.face).plies) {
        if (p.core != nullptr)
            out.weakest = out.weakest > 0 ? std::min(out.weakest, p.core->crush) : p.core->crush;
    }
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
            const auto use = use_of(made.at(f), system->strain(f, u), made.resin());
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
