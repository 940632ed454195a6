#include "core/stages/part/inserts.hpp"

#include <algorithm>
#include <cmath>

#include "core/science/fasten/hard_point.hpp"
#include "core/science/mesh/outline.hpp"
#include "core/stages/some_of.hpp"

namespace jig::part {
namespace {

/// An insert nearer to the rim than so many of its widths shears out. Typical.
constexpr double kRimWidths = 1.5;
/// Those closer than this, of the sum of their widths, share the same core. ESA PSS-03-1202, section 6.
constexpr double kApart = 1.25;
/// m: a potting wider than this is a block.
constexpr double kWidestPotting = 0.2;
/// A paste with light filler, typical of epoxies with hollow spheres of that density: Pa, Pa, kg/m³, Pa.
constexpr InsertBody kPaste{2.0e9, 0.74e9, 700, 35e6};

double to_rim(const TriangleMesh& face, const Topology& topology, const Point& p) {
    double out = 1e300;
    for (std::size_t f = 0; f < face.triangles.size(); ++f) {
        for (int k = 0; k < 3; ++k) {
            if (topology.across[f][static_cast<std::size_t>(k)] != kNoFace) continue;
            const Point &a = face.corner(f, k), &b = face.corner(f, (k + 1) % 3);
            const Point way = b - a;
            const double t = std::clamp((p - a).dot(way) / std::max(1e-30, way.squaredNorm()), 0.0, 1.0);
            out = std::min(out, (p - a - t * way).norm());
        }
    }
    return out < 1e299 ? out : 0;
}

/// The laminate on each side of the core under an insert, from the tool in; all of it in front where there is
/// no core. `bears` is thickness times bearing strength, N/m.
struct Under {
    double core = 0, shear_strength = 0, density = 0;
    bool known = true;
    double front = 0, behind = 0, front_bears = 0, behind_bears = 0;
};
Under under_of(const StackSum& stack, const Lists<Reinforcement, Core>& shop) {
    Under out;
    for (const auto& l : stack.laid) {
        if (l.layer.kind == LayerKind::core) {
            const auto& core = need(shop.cores, l.layer.material, "part");
            // A mat that fills with resin is laminate, and no core to shear.
            if (core.fills > 0) continue;
            out.core += l.ply.thickness;
            out.density = core.density;
            out.known = out.known && core.shear_strength > 0;
            out.shear_strength = out.shear_strength > 0 ? std::min(out.shear_strength, core.shear_strength)
                                                        : core.shear_strength;
        } else if (l.layer.kind == LayerKind::ply) {
            const double bears =
                l.ply.thickness * bearing_of(need(shop.reinforcements, l.layer.material, "part"));
            (out.core > 0 ? out.behind : out.front) += l.ply.thickness;
            (out.core > 0 ? out.behind_bears : out.front_bears) += bears;
        }
    }
    return out;
}

/// m, in whole millimetres, that a potting is to be wide to hold what is wanted: both its strengths grow with
/// its width.
double wide_enough(const Choices& c, const InsertFit& fit, std::size_t i) {
    return std::ceil(1000 * c.inserts[i].size * c.duty.factor / fit.holds - 1e-9) / 1000;
}

Fix changed(const Choices& c, std::string label, const std::function<void(std::vector<Insert>&)>& change) {
    auto inserts = c.inserts;
    change(inserts);
    return {std::move(label), patch_of("part", "inserts", to_json_value(inserts))};
}

}  // namespace

double bearing_of(const Reinforcement& cloth) {
    if (cloth.bearing > 0) return cloth.bearing;
    // Typical of laminates with a bolt that is done up by hand.
    if (cloth.weave == Weave::mat) return 100e6;
    switch (cloth.fibre) {
        case FibreKind::glass:
            return 220e6;
        case FibreKind::carbon:
            return 300e6;
        default:
            return 130e6;
    }
}

InsertsAsked inserts_asked(const Choices& c) {
    InsertsAsked out;
    for (const auto& insert : c.inserts) out.places.push_back({{insert.along, insert.across}, insert.piece});
    return out;
}

InsertPlaces insert_places(const InsertsAsked& asked, const Frame& frame, const Draped& draped) {
    InsertPlaces out;
    if (asked.places.size() > kMostInserts)
        throw InputError("part",
                         fmt::format("it has {} inserts, more than {}", asked.places.size(), kMostInserts),
                         "take those of a pattern together");
    if (asked.places.empty() || !draped.face || draped.face->empty()) return out;
    const auto topology = topology_of(*draped.face);
    for (const auto& [spot, piece] : asked.places) {
        const auto place = part::under(*draped.face, frame, spot);
        const bool elsewhere = !lies_on(piece, draped.piece);
        out.places.push_back({place.at, place.face, place.beside || elsewhere, elsewhere, draped.piece,
                              to_rim(*draped.face, topology, place.at)});
    }
    return out;
}

std::vector<InsertFit> insert_fits(const Choices& c, const InsertPlaces& placed, const Regions& marked,
                                   const StackAt& stack_at, const Lists<Reinforcement, Core>& shop) {
    std::vector<InsertFit> out;
    for (std::size_t i = 0; i < std::min(c.inserts.size(), placed.places.size()); ++i) {
        const auto& insert = c.inserts[i];
        InsertFit fit;
        fit.place = placed.places[i];
        fit.asked = {insert.along, insert.across};
        const auto zones = fit.place.face < marked.marks.size() ? marked.marks[fit.place.face] : 0;
        const auto there = under_of(stack_at(zones), shop);
        fit.core = there.core;
        fit.core_density = there.density;
        const bool potted = insert.kind == InsertKind::potted && there.core > 0;
        // A potting is set from the bag's side: the skin on the tool stays whole, and only the other leans on
        // it. A bolt through a block or through plain laminate leans on all there is.
        const double bears = potted ? there.behind_bears : there.front_bears + there.behind_bears;
        fit.skin = potted ? there.behind : there.front + there.behind;
        fit.push_borne = bearing_load(potted ? insert.size : insert.bolt, 1, bears);
        fit.pull_known = there.core > 0 && there.known;
        if (fit.pull_known) fit.pull_borne = pull_out(insert.size, there.core, there.shear_strength);
        fit.holds =
            hard_point_holds(fit.pull_known ? insert.pull : 0, fit.pull_borne, insert.push, fit.push_borne);
        out.push_back(fit);
    }
    return out;
}

InsertBody body_of(const Insert& insert, const Lists<Board>& shop) {
    if (insert.kind == InsertKind::potted) return kPaste;
    const auto& board = need(shop.boards, insert.block, "part insert " + insert.name);
    const auto plate = plate_of(board);
    return {(plate.E1 + plate.E2) / 2, (plate.G13 + plate.G23) / 2, board.density, board.crush};
}

InsertFill fill_of(const Insert& insert, const InsertFit& fit, const Lists<Board>& shop) {
    InsertFill out;
    if (fit.core <= 0) return out;
    const auto body = body_of(insert, shop);
    const double inner = insert.kind == InsertKind::potted ? std::min(insert.size, 2 * insert.bolt) : 0;
    const double volume = std::max(0.0, kPi / 4 * fit.core * (insert.size * insert.size - inner * inner));
    out.mass = volume * (body.density - fit.core_density);
    if (insert.kind == InsertKind::potted) {
        out.paste = volume;
    } else {
        const auto& board = need(shop.boards, insert.block, "part insert " + insert.name);
        out.block = insert.size * insert.size * std::ceil(fit.core / board.thickness - 1e-9);
    }
    return out;
}

const InsertFit* weakest_of(const FitsByPiece& fits, std::size_t insert) {
    const InsertFit* out = nullptr;
    for (const auto& on : fits) {
        if (insert >= on.size() || on[insert].place.beside) continue;
        if (out == nullptr || on[insert].holds < out->holds) out = &on[insert];
    }
    return out;
}

std::vector<Figure> insert_figures(const Choices& c, const FitsByPiece& fits) {
    std::vector<Figure> out;
    const InsertFit* weakest = nullptr;
    const Insert* whose = nullptr;
    for (std::size_t i = 0; i < c.inserts.size(); ++i) {
        const bool loaded = c.inserts[i].pull > 0 || c.inserts[i].push > 0;
        const auto* fit = loaded ? weakest_of(fits, i) : nullptr;
        if (fit == nullptr || (weakest != nullptr && fit->holds >= weakest->holds)) continue;
        weakest = fit;
        whose = &c.inserts[i];
    }
    if (weakest != nullptr && std::isfinite(weakest->holds)) {
        std::string why = whose->name + ": ";
        if (whose->pull > 0)
            why += weakest->pull_known ? fmt::format("pulled, its core shears round {} at {}",
                                                     quantity(Kind::length, whose->size),
                                                     quantity(Kind::force, weakest->pull_borne))
                                       : std::string("what it bears when it is pulled nobody knows");
        if (whose->push > 0)
            why += (whose->pull > 0 ? "; " : "") + fmt::format("pushed, {} of laminate gives under it at {}",
                                                               quantity(Kind::thickness, weakest->skin),
                                                               quantity(Kind::force, weakest->push_borne));
        out.push_back({"insert_holds", "weakest insert holds, times its loads", Kind::factor, weakest->holds,
                       why + "; by hand, without what skins carry past it"});
    }
    return out;
}

Calls insert_calls(const Choices& c, const FitsByPiece& fits) {
    Calls out;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::part, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    std::vector<std::string> nowhere, edged, crowded, unknown;
    std::vector<std::size_t> weak;
    std::optional<Point> edge_at, crowd_at, unknown_at;
    // The stand can point at none of the others.
    const auto shown = [&](const InsertFit& fit) {
        return !fits.front().empty() && fit.place.piece == fits.front()[0].place.piece;
    };
    const auto note = [&](std::vector<std::string>& names, std::optional<Point>& at, std::string name,
                          const InsertFit& fit) {
        // On each piece of a mould alike it is named once.
        if (std::find(names.begin(), names.end(), name) == names.end()) names.push_back(std::move(name));
        if (!at && shown(fit)) at = fit.place.at;
    };
    // Where the piece that is shown has no face yet, nobody knows of those on it.
    const bool placed = !fits.empty() && fits.front().size() >= c.inserts.size();
    for (std::size_t i = 0; placed && i < c.inserts.size(); ++i) {
        const auto& insert = c.inserts[i];
        bool beside = false, anywhere = false;
        for (const auto& on : fits) {
            if (i >= on.size()) continue;
            const auto& fit = on[i];
            beside = beside || (fit.place.beside && !fit.place.elsewhere);
            if (fit.place.beside) continue;
            anywhere = true;
            if (fit.place.rim < kRimWidths * insert.size) note(edged, edge_at, insert.name, fit);
            for (std::size_t j = 0; j < i; ++j) {
                if (!on[j].place.beside &&
                    (on[j].place.at - fit.place.at).norm() < kApart * (insert.size + c.inserts[j].size))
                    note(crowded, crowd_at, c.inserts[j].name + " and " + insert.name, fit);
            }
            if (insert.pull > 0 && !fit.pull_known) note(unknown, unknown_at, insert.name, fit);
        }
        const auto* weakest = weakest_of(fits, i);
        if (weakest != nullptr && weakest->holds < c.duty.factor) weak.push_back(i);
        // Its piece is one that the mould has not.
        if (beside || !anywhere) nowhere.push_back(insert.name);
    }
    if (!nowhere.empty())
        add(Severity::caution, "insert_nowhere", some_of(nowhere) + " lies beside the face",
            fits.size() > 1 ? "Its place counts from the middle of its piece's face, seen along that one's "
                              "pull: drag it on the stand, type it, or say on which piece it is."
                            : "Its place counts from the middle of the face, seen along the pull: drag it on "
                              "the stand, or type it.");
    if (!weak.empty()) {
        std::vector<std::string> names;
        bool curable = true;
        double worst = HUGE_VAL;
        std::optional<Point> weakest;
        for (const auto i : weak) {
            names.push_back(c.inserts[i].name);
            const auto& fit = *weakest_of(fits, i);
            if (fit.holds < worst && shown(fit)) weakest = fit.place.at;
            worst = std::min(worst, fit.holds);
            // As both strengths grow with its width, a wider potting answers; a bolt's own bearing does not.
            curable = curable && fit.core > 0 && c.inserts[i].kind == InsertKind::potted &&
                      wide_enough(c, fit, i) <= kWidestPotting;
        }
        std::optional<Fix> fix;
        if (curable)
            fix = changed(c, "Pot them wider", [&](std::vector<Insert>& inserts) {
                for (const auto i : weak) inserts[i].size = wide_enough(c, *weakest_of(fits, i), i);
            });
        add(worst < 1 ? Severity::stop : Severity::caution, "insert_weak",
            some_of(names) +
                fmt::format(" holds {:.2g} times its load, {:g} are wanted", worst, c.duty.factor),
            "By hand: the core in shear round it, the skin in bearing. Where someone hangs on it, have it "
            "pulled to proof on a trial piece of the same stack, and follow the licensed practice that the "
            "load "
            "asks for.",
            std::move(fix));
        out.back().at = weakest;
    }
    if (!unknown.empty()) {
        add(Severity::caution, "insert_unknown",
            "Nobody knows what " + some_of(unknown) + " bears when it is pulled",
            "There is no core under it whose shear strength the library has: through plain laminate it goes "
            "by "
            "its washer; pull a trial piece.");
        out.back().at = unknown_at;
    }
    if (!edged.empty()) {
        add(Severity::caution, "insert_edge", some_of(edged) + " sits close to the rim",
            fmt::format("Nearer than {:g} of its widths it shears out of the edge.", kRimWidths));
        out.back().at = edge_at;
    }
    if (!crowded.empty()) {
        add(Severity::caution, "insert_crowded", some_of(crowded) + " share the same core",
            fmt::format(
                "Closer than {:g} times their widths together they do not bear what each bears alone.",
                kApart));
        out.back().at = crowd_at;
    }
    return out;
}

SheetSet insert_template(const Choices& c, const std::vector<InsertFit>& fits, const edge::ToolFace& tool) {
    auto loops = tool.rim;
    if (loops.empty()) return {};
    std::vector<TemplateMark> marks;
    for (std::size_t i = 0; i < fits.size(); ++i) {
        if (fits[i].place.beside) continue;
        const Point2 at = tool.frame.flat(fits[i].place.at);
        // Bored as its bolt; a cross as wide as the potting.
        Loop hole;
        for (int k = 0; k < 48; ++k) {
            const double a = -2 * kPi * k / 48;
            hole.push_back(at + c.inserts[i].bolt / 2 * Point2(std::cos(a), std::sin(a)));
        }
        loops.push_back(std::move(hole));
        marks.push_back({c.inserts[i].name, at, c.inserts[i].size / 2});
    }
    return template_sheet("template of inserts", std::move(loops), marks);
}

}  // namespace jig::part
