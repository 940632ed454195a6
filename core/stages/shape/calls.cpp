#include <fmt/format.h>

#include <algorithm>

#include "core/stages/shape/findings.hpp"

namespace jig::shape {

Calls calls(const Choices& c, const Findings& f, const brief::Choices& brief) {
    Calls out;
    const auto& m = f.measures;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix = {}) {
        out.push_back({Stage::shape, s, key, std::move(headline), std::move(why), std::move(fix)});
    };
    const double longest = m.size.maxCoeff();
    if (c.kind == ShapeKind::mesh && (longest > 20 || longest < 0.02)) {
        const bool huge = longest > 20;
        const auto other = huge ? "mm" : "m";
        std::optional<Fix> fix;
        if (file_word(c.unit) != other)
            fix = Fix{fmt::format("Read it in {}", other), patch_of("shape", "unit", other)};
        add(Severity::caution, "unit",
            "The shape is " + quantity(Kind::length, longest) + " long: is the unit right?",
            "STL, OBJ and PLY files carry no unit.", fix);
    }
    if (m.bodies.size() > 1)
        add(Severity::caution, "bodies",
            fmt::format("The shape is of {} surfaces that do not touch", m.bodies.size()),
            "Plug, cloth, bag and resin are worked out for one that hangs together: the largest has " +
                quantity(Kind::area, m.bodies.front()) + " of " + quantity(Kind::area, m.area) +
                ". Join them, take away what is not the part, or give each a job of its own.");
    const double opening = std::min(m.size.x(), m.size.y());
    if (m.size.z() > opening) {
        add(Severity::caution, "deep",
            "Deep and narrow: " + quantity(Kind::length, m.size.z()) + " deep, " +
                quantity(Kind::length, opening) + " wide",
            "Hands and bag hardly reach the bottom of a mould that is deeper than it is wide; think of a "
            "split.");
    }
    const double door = std::min(brief.door_width, brief.door_height), least = Point(m.size).minCoeff();
    const double middle = m.size.sum() - longest - least;
    if (door > 0 && (least > door || middle > std::max(brief.door_width, brief.door_height))) {
        add(Severity::stop, "door",
            "The shape does not go through the door of " + quantity(Kind::length, brief.door_width) + " × " +
                quantity(Kind::length, brief.door_height),
            "Plug, tool and parts all have to leave the shop: split it, or build it elsewhere.");
    }
    if (f.flat_wall > 0.08) {
        add(Severity::note, "flat_wall", "A flat wall of " + quantity(Kind::area, f.flat_wall),
            "Flat walls oil-can and show every wave: a crown of 1 in 100 stiffens part and tool alike.");
    }
    if (by_stations(c.kind) && value_of(f.figures, "humps") > 2) {
        add(Severity::note, "humps",
            fmt::format("{:.0f} humps in the faired lines", value_of(f.figures, "humps")),
            "The plot below shows where the bend changes sign; more stiffness draws the line "
            "calmer.",
            Fix{"Make the lines stiffer", [&] {
                    Json patch = Json::object();
                    patch["shape"]["stations"]["stiffness"] = std::min(1.0, c.stations.stiffness + 0.1);
                    return patch;
                }()});
    }
    if (c.kind == ShapeKind::copied) {
        const auto settle = [](const char* field) {
            Json patch = Json::object();
            patch["shape"]["copying"][field] = true;
            return patch;
        };
        if (c.copying.holes > 0 && !c.copying.holes_blanked)
            add(Severity::stop, "holes", fmt::format("{} holes of the part are open", c.copying.holes),
                "Resin runs through and locks plug and mould together: blank them flush from behind, tape "
                "over.",
                Fix{"They are blanked", settle("holes_blanked")});
        if (!c.copying.returns_added)
            add(Severity::caution, "returns", "The part ends where the mould still needs a return",
                "A mould is made past the trim line: add flanges of board or clay round every edge.",
                Fix{"They are added", settle("returns_added")});
        if (!c.copying.draft_accepted)
            add(Severity::caution, "draft_copied",
                "A copied part brings its own draft, and no more can be added",
                "Look at the walls in Split before wax goes on; fill and fair what locks.",
                Fix{"It has been looked at", settle("draft_accepted")});
        if (c.stations.stations.size() < 3)
            add(Severity::caution, "gauge", "Two gauge sections leave the middle to guessing",
                "Take three at least: near each end and at the fullest place.");
    }
    for (const auto& r : f.repairs) {
        Json patch = Json::object();
        patch["shape"]["mend"][r.rule] = false;
        add(Severity::note, "repair", fmt::format("Mended: {} {}", r.count, r.what),
            "Yellow marks on the stand show where; the attached file stays as it came.",
            Fix{"Leave it as it came", patch});
    }
    for (const auto& r : f.left) {
        if (r.what != kCrowded) continue;  // an open rim is where a mould opens, too: the figures count them
        add(Severity::caution, "crowded",
            r.count == 1 ? std::string("1 edge joins three faces or more")
                         : fmt::format("{} edges join three faces or more", r.count),
            "Area and volume there may be counted twice; crosses on the stand show where: look for an inner "
            "wall "
            "in the file.");
    }
    if (m.smallest_inside_radius && *m.smallest_inside_radius < 0.004) {
        add(Severity::caution, "inside_radius",
            "Smallest inside radius " + quantity(Kind::length, *m.smallest_inside_radius),
            "Fabric bridges there and traps resin: lay a rolled strand or a fillet of thickened resin "
            "first.");
    }
    return out;
}

}  // namespace jig::shape
