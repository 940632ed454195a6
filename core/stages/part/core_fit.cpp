#include "core/stages/part/core_fit.hpp"

#include <fmt/format.h>

#include <cmath>

#include "core/science/mesh/curving.hpp"

namespace jig::part {
namespace {

/// Bends are read off over so many thicknesses of the core, and edges of the face's triangles.
constexpr double kReachThicknesses = 4, kReachEdges = 2.5;
/// Of its area that may be tighter before a core is said not to bend: what a reading at rims may be off.
constexpr double kNegligible = 0.002;
/// Slits that a core is offered, m: a saw's cut, and a third of the thickness left. Typical.
constexpr double kSaw = 0.001, kLeft = 1.0 / 3;

double mean_edge(const TriangleMesh& mesh) {
    double sum = 0;
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) sum += (mesh.corner(f, (k + 1) % 3) - mesh.corner(f, k)).norm();
    }
    return mesh.empty() ? 0 : sum / static_cast<double>(3 * mesh.triangles.size());
}

/// Curvature of a face along a direction in it, from those of its corners.
double bend_along(const TriangleMesh& mesh, const std::vector<Curving>& bends, std::size_t f,
                  const Point& way) {
    double out = 0;
    for (const auto p : mesh.triangles[f]) {
        const auto& k = bends[p];
        const double c = way.dot(k.along);
        out += (k.most * c * c + k.least * (1 - c * c)) / 3;
    }
    return out;
}

double most_bend(const TriangleMesh& mesh, const std::vector<Curving>& bends, std::size_t f) {
    double out = 0;
    for (const auto p : mesh.triangles[f]) out += std::abs(bends[p].most) / 3;
    return out;
}

/// m before the rim at which a core is offered to end.
constexpr double kEdge = 0.03;

/// Whether a core of the common stack reaches the rim with its cells open.
bool runs_out(const Choices& c, const Regions& marked) {
    if (!has_core(c.layers) || c.core.edge > 0) return false;
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        const auto& zone = c.zones[z];
        if (zone.place == ZonePlace::rim && zone.way != ZoneWay::adds && !has_core(zone.layers) &&
            (marked.area <= 0 || marked.area_of(z) > 0))
            return false;
    }
    return true;
}

std::string way_of(const CoreCut& cut) {
    std::string out;
    if (cut.heated) out = "hot";
    if (cut.slits != Slits::none)
        out += (out.empty() ? "" : " and ") +
               std::string(cut.slits == Slits::both ? "slit both ways" : "slit one way");
    return out.empty() ? "as it is" : out;
}

}  // namespace

CoreAsked core_asked(const Choices& c) {
    CoreAsked out;
    const auto cores_of = [](std::vector<Layer> layers) {
        for (auto& l : layers) {
            if (l.kind != LayerKind::core) l = Layer{l.kind, {}, 0, 0};
        }
        return layers;
    };
    out.stack = Choices{};
    out.stack.layers = cores_of(c.layers);
    out.stack.zones = c.zones;
    for (auto& z : out.stack.zones) {
        z.name.clear();
        z.layers = cores_of(z.layers);
    }
    out.stack.drape = c.drape;
    out.stack.core = c.core;
    out.stack.inserts = ringed_inserts(c);
    return out;
}

std::vector<std::pair<Source, Layer>> cores_of(const Choices& c) {
    std::vector<std::pair<Source, Layer>> out;
    const auto take = [&](int zone, const std::vector<Layer>& layers) {
        for (std::size_t i = 0; i < layers.size(); ++i) {
            if (layers[i].kind == LayerKind::core) out.push_back({{zone, i}, layers[i]});
        }
    };
    take(-1, c.layers);
    for (std::size_t z = 0; z < c.zones.size(); ++z) take(static_cast<int>(z), c.zones[z].layers);
    return out;
}

double CoreFit::tight() const {
    double out = 0;
    for (const auto& c : cores) out = std::max(out, c.tight);
    return out;
}

CoreFit core_fit(const CoreAsked& asked, const Frame& frame, const Draped& draped, const Regions& marked,
                 const Lists<Core>& shop, Progress& progress) {
    CoreFit out;
    const auto& c = asked.stack;
    for (const auto& [source, layer] : cores_of(c)) {
        const auto* core = find(shop.cores, layer.material);
        if (core == nullptr) continue;
        CoreBend one;
        one.of = source;
        one.layer = layer;
        one.thickness = layer.thickness > 0 ? layer.thickness : core->thickness;
        one.bends_to = jig::bends_to(*core, layer.cut);
        out.cores.push_back(std::move(one));
    }
    if (!draped.face || out.cores.empty()) return out;
    const auto& face = *draped.face;
    out.reach = kReachEdges * mean_edge(face);
    for (const auto& one : out.cores) out.reach = std::max(out.reach, kReachThicknesses * one.thickness);
    const auto bends = curvings(face, topology_of(face), out.reach, progress);
    LiesUnder lies(c);
    for (auto& one : out.cores) {
        const auto* core = find(shop.cores, one.layer.material);
        const bool one_way = one.layer.cut.slits == Slits::along;
        auto uncut = one.layer.cut;
        uncut.slits = Slits::none;
        const double stiff_way = jig::bends_to(*core, uncut);
        const double turn = c.drape.turn + one.layer.angle;
        const Point slits = std::cos(turn) * frame.u + std::sin(turn) * frame.v;
        one.is_tight.assign(face.triangles.size(), 0);
        double worst = 0;
        for (std::size_t f = 0; f < face.triangles.size(); ++f) {
            if (!lies(one.of, f < marked.marks.size() ? marked.marks[f] : 0)) continue;
            const Point normal = face.area_vector2(f);
            const double area = normal.norm() / 2;
            if (!(area > 0)) continue;
            one.area += area;
            const double most = most_bend(face, bends, f);
            if (most > worst) {
                worst = most;
                one.at = face.centre(f);
            }
            bool tight = one.bends_to > 0 && most * one.bends_to > 1;
            Point along = slits - normal * (normal.dot(slits) / normal.squaredNorm());
            if (one_way && along.norm() > 0.1) {
                along.normalize();
                const Point across = normal.normalized().cross(along);
                tight = std::abs(bend_along(face, bends, f, across)) * one.bends_to > 1 ||
                        std::abs(bend_along(face, bends, f, along)) * stiff_way > 1;
            }
            if (!tight) continue;
            one.tight += area;
            one.is_tight[f] = 1;
        }
        // Flatter than this is flat: the face's own size a thousand times.
        one.tightest = worst > 1e-3 / std::sqrt(std::max(1e-12, draped.area)) ? 1 / worst : 0;
    }
    return out;
}

CoreFit and_on(CoreFit fit, const CoreFit& other) {
    fit.reach = std::max(fit.reach, other.reach);
    for (std::size_t i = 0; i < std::min(fit.cores.size(), other.cores.size()); ++i) {
        auto& to = fit.cores[i];
        const auto& from = other.cores[i];
        to.area += from.area;
        to.tight += from.tight;
        // Of two alike the one that is shown.
        if (from.tightest > 0 && (!(to.tightest > 0) || from.tightest < (1 - 1e-6) * to.tightest)) {
            to.tightest = from.tightest;
            to.at = from.at;
            to.elsewhere = true;
        }
    }
    return fit;
}

std::optional<CoreCut> cut_for(const Core& core, const CoreBend& one) {
    // Slits that run the wrong way may be fine enough: both ways is another cut all the same.
    auto slit = one.layer.cut;
    slit.slits = Slits::both;
    slit.slit = kSaw;
    slit.slit_depth = (1 - kLeft) * one.thickness;
    auto hot = one.layer.cut;
    hot.heated = true;
    for (const auto& way : {slit, hot}) {
        const double bends = bends_to(core, way);
        if (way != one.layer.cut && bends > 0 && bends <= one.tightest) return way;
    }
    return {};
}

std::vector<Figure> core_figures(const Choices& c, const CoreFit& fit, double scale, const Resin& resin,
                                 const Lists<Core>& shop) {
    std::vector<Figure> out;
    for (std::size_t i = 0; i < fit.cores.size(); ++i) {
        const auto& one = fit.cores[i];
        const auto key = fit.cores.size() > 1 ? fmt::format("_{}", i + 1) : std::string();
        const auto add = [&](const char* name, std::string said, Kind kind, double value, std::string why) {
            out.push_back({name + key, std::move(said), kind, value, std::move(why)});
        };
        const auto whose = one.of.zone < 0
                               ? std::string()
                               : " of zone " + c.zones[static_cast<std::size_t>(one.of.zone)].name;
        const double area = one.area * scale;
        if (area > 0) {
            const auto known = one.bends_to > 0
                                   ? quantity(Kind::length, one.bends_to) + " " + way_of(one.layer.cut)
                                   : std::string("nobody knows how far");
            add("core_bends", "core" + whose + " bends on this face to", Kind::length, one.tightest,
                one.tightest > 0
                    ? fmt::format("least radius of the face under it, read off over {}; {} bends to {}",
                                  quantity(Kind::length, fit.reach), one.layer.material, known)
                    : "the face under it is flat");
            add("core_tight", "of it, where it does not follow", Kind::area, one.tight * scale,
                "of " + quantity(Kind::area, area) + " that it covers");
        }
        const auto& cut = one.layer.cut;
        const auto open = open_of(cut, one.thickness);
        if (open.volume() <= 0) continue;
        const double lets =
            c.how == LayUp::prepreg ? 0 : open.volume() * one.thickness * resin.matrix.density;
        std::string made;
        if (cut.hole > 0)
            made = fmt::format("{:.0f} holes of {}", area / (cut.hole_pitch * cut.hole_pitch),
                               quantity(Kind::length, cut.hole));
        if (cut.slits != Slits::none)
            made += (made.empty() ? "" : " and ") +
                    quantity(Kind::length, area / cut.slit_pitch * (cut.slits == Slits::both ? 2 : 1)) +
                    " of slits";
        const auto& core = need(shop.cores, one.layer.material, "part");
        auto whole = isotropic(core.E, core.nu, core.density, core.alpha);
        whole.G13 = whole.G23 = core.G;
        const auto left = as_cut(whole, open, cut.slits, c.how == LayUp::prepreg ? nullptr : &resin.matrix);
        add("core_cuts", "resin in cuts of the core" + whose, Kind::mass, area * lets,
            fmt::format(
                "{}: {:.2g} % of its volume{}; in shear it is {:.3g} and {:.3g} times as stiff, along "
                "and across them",
                made, 100 * open.volume(), c.how == LayUp::prepreg ? ", left empty under a prepreg" : "",
                left.G13 / core.G, left.G23 / core.G));
    }
    return out;
}

Calls core_calls(const Choices& c, const CoreFit& fit, const std::vector<const Regions*>& marked,
                 const Lists<Core>& shop) {
    Calls out;
    if (std::any_of(marked.begin(), marked.end(), [&](const auto* on) { return runs_out(c, *on); })) {
        Zone edge;
        edge.name = "edge without core";
        edge.place = ZonePlace::rim;
        edge.way = ZoneWay::for_core;
        edge.width = kEdge;
        auto zones = c.zones;
        zones.push_back(edge);
        std::optional<Fix> fix;
        if (zones.size() <= kMostZones)
            fix = Fix{"End it " + quantity(Kind::length, kEdge) + " before the rim",
                      patch_of("part", "zones", to_json_value(zones))};
        out.push_back(
            {Stage::part, Severity::note, "core_runs_out", "The core runs out to the rim",
             "A cut edge of core drinks water and peels: end it before the trim, so that the skins meet "
             "there as solid laminate, or fill its cells.",
             std::move(fix)});
    }
    for (const auto& one : fit.cores) {
        if (one.bends_to <= 0 || one.tight <= kNegligible * one.area) continue;
        const auto& core = need(shop.cores, one.layer.material, "part");
        const auto way = cut_for(core, one);
        std::optional<Fix> fix;
        if (way) {
            auto layers = one.of.zone < 0 ? c.layers : c.zones[static_cast<std::size_t>(one.of.zone)].layers;
            layers.at(one.of.layer).cut = *way;
            auto zones = c.zones;
            if (one.of.zone >= 0) zones[static_cast<std::size_t>(one.of.zone)].layers = layers;
            fix = Fix{way->heated && !one.layer.cut.heated ? "Bend it hot" : "Slit it both ways",
                      one.of.zone < 0 ? patch_of("part", "layers", to_json_value(layers))
                                      : patch_of("part", "zones", to_json_value(zones))};
        }
        out.push_back({Stage::part, Severity::caution, "core_bends",
                       one.layer.material + " bends to " + quantity(Kind::length, one.bends_to) + " " +
                           way_of(one.layer.cut) + ", and the face to " +
                           quantity(Kind::length, one.tightest),
                       "It springs off the skin over " + quantity(Kind::area, one.tight) +
                           " and leaves a void under it. Slit it, bend it hot, take a thinner one, or end it "
                           "before the bend: solid laminate in its place.",
                       std::move(fix), one.elsewhere ? std::nullopt : std::optional(one.at)});
    }
    return out;
}

}  // namespace jig::part
