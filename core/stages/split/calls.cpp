#include <fmt/format.h>

#include "core/stages/split/findings.hpp"

namespace jig::split {
namespace {

Json plane_patch(const Findings& f) {
    const Point at = f.widest * f.pull;
    Json patch = Json::object();
    patch["split"] = {{"way", "plane"},
                      {"plane_at", {at.x(), at.y(), at.z()}},
                      {"plane_normal", {f.pull.x(), f.pull.y(), f.pull.z()}}};
    return patch;
}

/// The middle of the largest face that locks.
std::optional<Point> locks_at(const DraftMap& map, const TriangleMesh& mesh) {
    std::optional<Point> out;
    double most = 0;
    for (std::size_t i = 0; i < std::min(map.faces.size(), mesh.triangles.size()); ++i) {
        const double area = map.faces[i] == Release::locks ? mesh.area_vector2(i).norm() : 0;
        if (area <= most) continue;
        most = area;
        out = mesh.centre(i);
    }
    return out;
}

void judge_pieces(const Choices& c, const Findings& f, const shape::Findings& shape, Calls& out) {
    const auto add = [&](Severity s, std::string key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::split, s, std::move(key), std::move(headline), std::move(why), std::move(fix)});
    };
    for (std::size_t i = 0; i < f.facts.size(); ++i) {
        const auto& facts = f.facts[i];
        if (facts.way.turn == 0 && facts.way.blocked_by >= 0) {
            add(Severity::stop, fmt::format("clash_{}", i + 1),
                facts.name + " meets " + f.facts[static_cast<std::size_t>(facts.way.blocked_by)].name +
                    " after " + quantity(Kind::length, facts.way.travel) + ": " +
                    quantity(Kind::area, facts.way.clash) + " in its way",
                "Neither comes off before the other: move the seam, or make one of them in two.");
        }
        if (facts.mouth > 0 && facts.depth > facts.mouth) {
            add(Severity::caution, fmt::format("reach_{}", i + 1),
                facts.name + " is " + quantity(Kind::length, facts.depth) + " deep behind a mouth of " +
                    quantity(Kind::length, facts.mouth),
                "Hands, bag and hoses hardly reach the bottom of a piece that is deeper than its mouth is "
                "wide.");
        }
    }
    if (c.way == SplitWay::plane &&
        std::abs(f.pull.dot(Point(c.plane_at[0], c.plane_at[1], c.plane_at[2])) - f.widest) >
            0.02 * f.map.depth &&
        f.map.locks > 1e-4 * f.moulded_area) {
        add(Severity::note, "widest", "The widest line lies elsewhere",
            "A plane there usually frees most on both sides.", Fix{"Put the plane there", plane_patch(f)});
    }
    if (f.seam_on_show > 0.02 * f.set.seam_length)
        add(Severity::note, "on_show",
            quantity(Kind::length, f.seam_on_show) + " of seam runs across show surface",
            c.way == SplitWay::plane
                ? "Every seam shows as a line that is sanded away in each part: move the plane off it."
                : "Every seam shows as a line that is sanded away in each part: give the faces beside it to "
                  "one "
                  "piece with the brush on the stand.");
    if (c.together != Together::alone)
        add(Severity::note, "alone", "In a mould of pieces the part lies alone",
            "Several parts in one mould are planned for moulds in one piece.",
            Fix{"Let it lie alone", patch_of("split", "together", "alone")});
    if (shape.measures.closed) {
        add(Severity::note, "closed_part",
            "The part is closed: lay the pieces open and join its halves later",
            "Joined in the closed mould it needs a hole of 120 mm or more for a hand, or a bladder and its "
            "hose.");
    }
    for (const auto& board : f.boards) {
        if (board.bend <= 0 || board.bend > 0.15) continue;
        add(Severity::note, "board_bend",
            "A parting board is bent to a radius of " + quantity(Kind::length, board.bend),
            "Thin ply or sheet plastic in strips follows that; thick board does not.");
        break;
    }
}

}  // namespace

Calls calls(const Choices& c, const Findings& f, const shape::Findings& shape) {
    Calls out;
    const auto& m = f.map;
    const bool one = f.one_piece();
    if (m.locks > (one ? 1e-4 : 2e-3) * f.moulded_area) {
        std::optional<Fix> fix;
        if (one && c.mode == PullMode::given)
            fix = Fix{"Take the best pull", patch_of("split", "mode", "best")};
        else if (one)
            fix = Fix{"Split it at the widest line", plane_patch(f)};
        else if (c.way == SplitWay::plane)
            fix = Fix{"Search for the pieces", [] {
                          auto patch = patch_of("split", "way", "search");
                          patch["split"]["pieces"] = 3;
                          return patch;
                      }()};
        else if (c.pieces < 6)
            fix = Fix{"Allow one piece more", patch_of("split", "pieces", c.pieces + 1)};
        out.push_back(
            {Stage::split, Severity::stop, "locks",
             quantity(Kind::area, m.locks) + " locks; worst draft " + quantity(Kind::angle, m.min_draft),
             one ? "These faces turn away from the pull or lie under something: this mould does not come off "
                   "in "
                   "one piece."
                 : "These faces turn away from their own piece's pull or lie under something: it does not "
                   "come off.",
             fix, one ? locks_at(m, shape.mesh) : std::nullopt});
    } else if (m.drags > 0.01 * f.moulded_area) {
        out.push_back({Stage::split,
                       Severity::caution,
                       "drags",
                       quantity(Kind::area, m.drags) + " drags with less than " +
                           quantity(Kind::angle, f.drag_angle) + " of draft",
                       "Walls this straight scuff and stick: add draft, polish along the pull, and plan air "
                       "ports and wedges.",
                       {}});
    } else if (one) {
        out.push_back({Stage::split,
                       Severity::note,
                       "frees",
                       "Every face slides; worst draft " + quantity(Kind::angle, m.min_draft),
                       "One piece comes off along this pull.",
                       {}});
    } else {
        out.push_back({Stage::split,
                       Severity::note,
                       "frees",
                       fmt::format("{} pieces free every face along {} of seam", f.set.pieces.size(),
                                   quantity(Kind::length, f.set.seam_length)),
                       "Each comes off along its own pull, in the order that its figure says.",
                       {}});
    }
    if (one && shape.measures.closed && m.open == 0) {
        out.push_back({Stage::split, Severity::caution, "closed",
                       "A closed shape in one piece: hands, tape and hoses do not get in",
                       "Split it, or leave its foot open.",
                       Fix{"Split it at the widest line", plane_patch(f)}});
    }
    if (!one) judge_pieces(c, f, shape, out);
    return out;
}

}  // namespace jig::split
