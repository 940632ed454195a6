#include "core/stages/part/made.hpp"

#include <algorithm>
#include <cmath>
#include <set>

#include "core/science/mesh/disc_cover.hpp"
#include "core/science/mesh/nearest_face.hpp"
#include "core/stages/part/face.hpp"

namespace jig::part {
namespace {

/// Cloth that lies turned by less than this shares a laminate, rad.
constexpr double kTurnStep = 2 * kPi / 180;
/// Faces that inserts cover to less than half of one of these share a laminate with the rest.
constexpr int kCoverSteps = 16;

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

}  // namespace

Made::Made(const DutyAsked& asked, const TriangleMesh& upright, const TriangleMesh& face, const Frame& frame,
           const Draped& draped, const DutyLibrary& shop)
    : asked_(asked), shop_(shop), resin_(need(shop.resins, asked.stack.resin, "part resin")) {
    common_ = stack_under(0);
    for (const auto& l : common_) thickness_ += l.second.ply.thickness;
    set_bodies(upright, face, frame, draped.piece);
    std::map<std::tuple<std::uint32_t, bool, std::vector<int>, Covered>, std::uint16_t> known;
    const auto zones = zones_asked(asked.stack);
    const auto bits = zones_on(zones, frame, draped, face);
    std::optional<NearestFace> nearest;
    if (draped.face && !draped.face->triangles.empty() && !draped.nets.empty()) nearest.emplace(*draped.face);
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
        const auto [at, fresh] = known.try_emplace({bits[f], width, turns, covered_[f]},
                                                   static_cast<std::uint16_t>(places_.size()));
        if (fresh) {
            if (places_.size() >= 65000)
                throw InputError("part", "its cloth lies in too many ways for one trial", "use fewer zones");
            places_.push_back(place(bits[f], width, turns, covered_[f], draped));
            skins_.push_back({places_.back().laminate, zero});
        }
        place_of_.push_back(at->second);
    }
}

void Made::set_bodies(const TriangleMesh& upright, const TriangleMesh& face, const Frame& frame, int piece) {
    // By face and body what is covered of it: several of a kind on one large face are taken together.
    std::map<std::size_t, std::map<std::size_t, double>> shares;
    std::vector<const Insert*> kinds;
    // Part itself says so of more than there can be.
    if (asked_.stack.inserts.size() > kMostInserts) return covered_.assign(face.triangles.size(), {});
    for (const auto& insert : asked_.stack.inserts) {
        if (!lies_on(insert.piece, piece)) continue;
        const auto place = under(face, frame, {insert.along, insert.across});
        if (place.beside) continue;
        const Point at(frame.u.dot(place.at), frame.v.dot(place.at), frame.w.dot(place.at));
        bodies_.push_back({body_of(insert, shop_), at, insert.size / 2});
        const auto same = [&](const Insert* other) {
            return other->kind == insert.kind &&
                   (insert.kind == InsertKind::potted || other->block == insert.block);
        };
        const auto first = std::find_if(kinds.begin(), kinds.end(), same);
        const auto kind = static_cast<std::size_t>(first - kinds.begin());
        kinds.push_back(&insert);
        for (const auto& [f, share] :
             disc_cover(upright, at, upright.area_vector2(place.face), insert.size / 2))
            shares[f][kind] += share;
    }
    covered_.assign(face.triangles.size(), {});
    for (const auto& [f, by_body] : shares) {
        const auto most = std::max_element(by_body.begin(), by_body.end(),
                                           [](const auto& a, const auto& b) { return a.second < b.second; });
        const int steps = std::min(kCoverSteps, static_cast<int>(std::lround(kCoverSteps * most->second)));
        if (steps > 0) covered_[f] = {most->first, steps};
    }
}

std::vector<std::pair<Source, LaidLayer>> Made::stack_under(std::uint32_t bits) const {
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

Place Made::place(std::uint32_t bits, bool width, const std::vector<int>& turns, const Covered& covered,
                  const Draped& draped) {
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
        if (layer.layer.kind == LayerKind::ply) read.cloth = find(shop_.reinforcements, layer.layer.material);
        if (layer.layer.kind == LayerKind::core) read.core = find(shop_.cores, layer.layer.material);
        if (read.core != nullptr && covered.steps > 0) fill_in(read, ply, covered);
        read.ply = ply;
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

void Made::fill_in(Read& read, StackPly& ply, const Covered& covered) {
    // A mat that fills with resin is laminate, and nothing is set in its place.
    if (read.core->fills > 0) return;
    const auto& body = bodies_[covered.body].of;
    const double share = static_cast<double>(covered.steps) / kCoverSteps;
    const auto own = ply.material;
    auto whole = isotropic(body.E, 0.3, body.density, own.alpha1);
    whole.G13 = whole.G23 = body.G;
    // Side by side between the same skins both shear and stretch alike.
    for (const auto of : {&PlyMaterial::E1, &PlyMaterial::E2, &PlyMaterial::G12, &PlyMaterial::nu12,
                          &PlyMaterial::G13, &PlyMaterial::G23, &PlyMaterial::density})
        ply.material.*of = (1 - share) * own.*of + share * whole.*of;
    auto& core = filled_.emplace_back(*read.core);
    read.core = &core;
    if (covered.steps == kCoverSteps) {
        core.E = body.E;
        core.G = body.G;
        core.shear_strength = HUGE_VAL;  // paste and block outlast any core in shear
    } else {
        // What is left of the core shears as far as the whole does, and bears its part of the mean.
        core.shear_strength *= ply.material.G13 / own.G13;
    }
}

Use Made::use(std::size_t face, const shell_fe::FaceStrain& e) const {
    const auto& place = at(face);
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
        out.cracks = std::max(out.cracks, strain.any / resin_.strain_limit);
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

double Made::stands(std::size_t face, const Point& at, double width) const {
    double out = 0;
    for (const auto& p : this->at(face).plies) {
        if (p.core != nullptr) out = out > 0 ? std::min(out, p.core->crush) : p.core->crush;
    }
    for (const auto& body : bodies_) {
        if (out > 0 && (at - body.at).norm() + width / 2 <= body.radius * (1 + 1e-9))
            out = std::max(out, body.of.crush);
    }
    return out;
}

std::vector<std::string> Made::unjudged() const {
    std::set<std::string> names;
    for (const auto& p : places_) {
        for (const auto& ply : p.plies) {
            if (ply.core != nullptr && !(ply.core->shear_strength > 0)) names.insert(ply.core->name);
        }
    }
    return {names.begin(), names.end()};
}

}  // namespace jig::part
