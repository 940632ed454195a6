#include "core/stages/heat/folds.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>

#include "core/science/mesh/cut.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/stages/whereabouts.hpp"

namespace jig::heat {
namespace {

/// Of the root of the face's area: how finely the face is looked at, and over what its bend is read.
constexpr double kCell = 0.01, kReach = 0.015;
/// Of the root of the face's area, the largest radius of what is called a fold.
constexpr double kWidest = 0.5;
/// rad; what turns by less closes by less than a cutter leaves.
constexpr double kLeast = 0.26;
/// Of a unit: a reference that stands steeper on the face than this gives no direction in it.
constexpr double kSteep = 0.1;
/// m, what a fold's closing is told over.
constexpr double kOver = 0.1;

/// 1/K of the laid stack across a fold.
double alpha_across(const FaceFolds& on, const Fold& fold, double turn, const Laminate& laid) {
    const double mean = (laid.cte[0] + laid.cte[1]) / 2;
    const Point normal = fold.across.cross(fold.along);
    const Point reference = on.frame.u - normal * normal.dot(on.frame.u);
    if (reference.norm() < kSteep) return mean;
    Point outside = normal;
    double nearest = 1e300;
    for (const auto f : fold.faces) {
        const double away = (on.face->centre(f) - fold.at).squaredNorm();
        if (away >= nearest) continue;
        nearest = away;
        outside = on.face->area_vector2(f);
    }
    const Point x = reference.normalized(), y = (outside.dot(normal) < 0 ? -normal : normal).cross(x);
    const double angle = std::atan2(fold.across.dot(y), fold.across.dot(x)) - turn;
    const double c = std::cos(angle), s = std::sin(angle);
    return laid.cte[0] * c * c + laid.cte[1] * s * s;
}

std::string number_of(std::size_t fold) {
    return std::to_string(fold + 1);
}

}  // namespace

std::optional<std::size_t> FoldsUse::worst() const {
    if (all.empty()) return {};
    const auto it = std::max_element(all.begin(), all.end(), [](const FoldCloses& a, const FoldCloses& b) {
        return std::abs(a.moves) < std::abs(b.moves);
    });
    return static_cast<std::size_t>(it - all.begin());
}

FaceFolds face_folds(const edge::ToolFace& tool, Progress& progress) {
    FaceFolds out;
    out.frame = tool.frame;
    auto face = edge::moulded_face(tool);
    double area = 0;
    for (std::size_t f = 0; f < face.triangles.size(); ++f) area += face.area_vector2(f).norm() / 2;
    if (!(area > 0)) return out;
    const double size = std::sqrt(area);
    face = refined(face, kCell * size, progress).mesh;
    FoldRules rules;
    rules.reach = kReach * size;
    rules.widest = kWidest * size;
    rules.least = kLeast;
    auto found = folds(face, topology_of(face), rules, progress);
    for (const auto& fold : found) {
        const auto& w = tool.frame;
        out.where.push_back(
            whereabouts({w.u.dot(fold.at), w.v.dot(fold.at), w.w.dot(fold.at)}, tool.low, tool.high));
    }
    out.face = std::make_shared<const TriangleMesh>(std::move(face));
    out.folds = std::make_shared<const std::vector<Fold>>(std::move(found));
    return out;
}

FoldZones fold_zones(const FaceFolds& on, const part::ZonesAsked& zones, const part::Draped& bare) {
    FoldZones out;
    if (!on.folds) return out;
    out.of.assign(on.folds->size(), {{}});
    if (zones.places.empty() || !bare.face) return out;
    // All strips at once: how far a zone's rim lies off is worked out once for a face.
    std::vector<std::uint32_t> keep;
    for (const auto& fold : *on.folds) keep.insert(keep.end(), fold.faces.begin(), fold.faces.end());
    const auto strips = some_faces(*on.face, keep);
    const auto marks = part::zones_on(zones, on.frame, bare, strips);
    std::size_t next = 0;
    for (std::size_t i = 0; i < on.folds->size(); ++i) {
        std::map<std::uint32_t, double> areas;
        double all = 0;
        for (const auto end = next + (*on.folds)[i].faces.size(); next < end; ++next) {
            const double area = strips.area_vector2(next).norm();
            areas[marks[next]] += area;
            all += area;
        }
        if (!(all > 0)) continue;
        out.of[i].clear();
        for (const auto& [bits, area] : areas) out.of[i].push_back({bits, area / all});
    }
    return out;
}

FoldsUse folds_use(const FaceFolds& on, const FoldZones& zones, const GrowthChain& chain,
                   const part::Choices& part, const part::Findings& laid) {
    FoldsUse out;
    out.on = on;
    if (!on.folds) return out;
    for (std::size_t i = 0; i < on.folds->size(); ++i) {
        const auto& fold = (*on.folds)[i];
        FoldCloses one;
        for (const auto& [bits, share] : zones.of.at(i)) {
            const auto& stack = laid.stack_under(bits);
            const double alpha = alpha_across(on, fold, part.drape.turn, stack.laminate);
            one.alpha += share * alpha;
            one.closes +=
                share * spring_in(fold.turn, alpha, stack.laminate.cte_through, -stack.cure.in_plane,
                                  -stack.cure.through, chain.room - chain.part_gel);
            one.zoned += bits != 0 ? share : 0;
        }
        // What the tool turns by, the part turns by as many times more.
        one.build = fold.turn / (1 + one.closes / fold.turn);
        // Held at its ends, a flank bows in no further than half of its length from them.
        one.swings = fold.free ? fold.flank : std::min(fold.flank, fold.length / 2);
        one.moves = one.closes * one.swings;
        out.all.push_back(one);
    }
    return out;
}

void fold_figures(const Choices& c, const FoldsUse& use, std::vector<Figure>& out) {
    const auto at = use.worst();
    if (!at) {
        out.push_back(
            {"folds", "folds of the part", Kind::count, 0,
             use.on.folds ? "no strip of its face turns one way by more than " + quantity(Kind::angle, kLeast)
                          : "there is no tool whose face could be looked at"});
        return;
    }
    const auto& fold = (*use.on.folds)[*at];
    const auto& one = use.all[*at];
    out.push_back({"folds", "folds of the part", Kind::count, static_cast<double>(use.all.size()),
                   "strips of the face that it is laid on which turn one way by more than " +
                       quantity(Kind::angle, kLeast) + "; Heat lists them, the stand shows them"});
    out.push_back(
        {"fold_moves", "worst fold moves its flank by", Kind::thickness, one.moves,
         "fold " + number_of(*at) + " (" + use.on.where[*at] + ") turns by " +
             quantity(Kind::angle, fold.turn) + " and closes by " + quantity(Kind::angle, one.closes) +
             (one.zoned > 0 ? fmt::format(", {:.0f} % of it by the stacks of its zones", 100 * one.zoned)
                            : std::string()) +
             "; " + quantity(Kind::length, one.swings) + " of its shorter flank swing" +
             (fold.free ? "" : ", which is held at an end: half the fold's length at most") +
             (c.opened ? "; the drawing has its folds opened for it" : "")});
}

void fold_calls(const Choices& c, const FoldsUse& use, double tolerance, Calls& out) {
    const auto at = use.worst();
    if (!at || c.opened) return;
    const auto& one = use.all[*at];
    if (std::abs(one.moves) <= tolerance) return;
    const auto& fold = (*use.on.folds)[*at];
    const auto past = std::count_if(use.all.begin(), use.all.end(),
                                    [&](const FoldCloses& f) { return std::abs(f.moves) > tolerance; });
    out.push_back(
        {Stage::heat, Severity::caution, "springs",
         "Fold " + number_of(*at) + " (" + use.on.where[*at] + ") " +
             (one.closes > 0 ? "closes by " : "opens by ") + quantity(Kind::angle, std::abs(one.closes)) +
             ": its flank comes out " + quantity(Kind::thickness, std::abs(one.moves)) + " off",
         fmt::format("{} of {} folds move by more than the brief's {}. Draw it so that it turns by {} where "
                     "{} is wanted, {} over {}; Heat lists each. A first part measured beats the sum.",
                     past, use.all.size(), quantity(Kind::thickness, tolerance),
                     quantity(Kind::angle, one.build), quantity(Kind::angle, fold.turn),
                     quantity(Kind::thickness, kOver * std::abs(std::tan(one.closes))),
                     quantity(Kind::length, kOver)),
         Fix{"The drawing has them opened already", patch_of("heat", "opened", true)}, fold.at});
}

}  // namespace jig::heat
