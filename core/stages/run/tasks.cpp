#include <fmt/format.h>

#include "core/stages/run/findings.hpp"

namespace jig::run {
namespace {

constexpr double kHour = 3600;

void release_tasks(std::vector<Task>& out, const release::Findings& release, const char* onto) {
    for (std::size_t i = 0; i < release.plan.size(); ++i) {
        const auto& step = release.plan[i];
        double minutes = 0;
        for (const auto& coat : release.system.first_use) {
            if (coat.product == step.product) minutes = coat.minutes;
        }
        const bool last = i + 1 == release.plan.size();
        out.push_back(
            {"release", fmt::format("{}, coat {} of {}, on the {}", step.product, step.coat, step.of, onto),
             minutes * 60 * release.area, 1, step.wait + (last ? release.system.final_cure : 0), false, 0});
    }
}

}  // namespace

std::vector<Task> build_tasks(const Before& b, const Library& shop) {
    std::vector<Task> out;
    const double people = std::max(1, b.brief.people), area = b.plug.sanding_area;
    const auto hands = static_cast<int>(people);
    const auto work = [&](const char* rate, double amount) {
        return shop.rate(rate) * amount * kHour / people;
    };
    const auto grade = "sanding " + std::string(file_word(b.brief.grade));
    for (const auto& plan : b.plug.plans) {
        for (const auto& w : plan.works)
            out.push_back({"plug", w.what, w.hours * kHour / people, hands, w.wait, true, 0});
    }
    if (b.edge.area > 0)
        out.push_back({"edge", "set up the flange boards and clay fillet",
                       work("filling", b.edge.area) + kHour, hands, 0, true, 0});
    if (b.split.set.seam_length > 0)
        out.push_back({"split", fmt::format("fit {} parting boards with clay", b.split.boards.size()),
                       work("parting boards", b.split.set.seam_length), hands, 0, true, 0});
    release_tasks(out, b.release, "plug");
    const double shell_area = b.shell.area;
    double laying = 0;
    int day = 1;
    for (std::size_t i = 0; i < b.shell_choices.layers.size(); ++i) {
        const auto& layer = b.shell_choices.layers[i];
        if (layer.kind == LayerKind::surface_coat) {
            const auto& coat = need(shop.surface_coats, layer.material, "shell");
            for (int p = 1; p <= coat.passes; ++p) {
                out.push_back({"shell", fmt::format("{}, pass {} of {}", coat.name, p, coat.passes),
                               work("coating", shell_area), hands, coat.between_passes, false, coat.window});
            }
            continue;
        }
        laying += layer.kind == LayerKind::coupling ? work("coating", shell_area)
                  : layer.kind == LayerKind::core   ? work("laying core", shell_area)
                                                    : work("laying ply", shell_area);
        const bool ends =
            std::find(b.shell.day_ends.begin(), b.shell.day_ends.end(), i) != b.shell.day_ends.end();
        if (ends || i + 1 == b.shell_choices.layers.size()) {
            const bool last = !ends;
            out.push_back(
                {"shell",
                 b.shell.days > 1 ? fmt::format("lay up the shell, day {} of {}", day++, b.shell.days)
                                  : std::string("lay up the shell"),
                 laying, hands,
                 last ? b.shell.resin.demould_time : std::max(b.shell.resin.gel_time, 10 * kHour), false, 0});
            laying = 0;
        }
    }
    const auto& back = b.back_choices;
    const double pieces = b.pieces();
    if (back.has_plates()) {
        const double cut = b.back.crate ? b.back.crate->cut_length : 0;
        out.push_back({"back", fmt::format("cut and fit {:.0f} ribs", pieces * b.back.ribs),
                       work("cutting ribs", pieces * cut) + work("fitting ribs", pieces * b.back.ribs), hands,
                       0, true, 0});
    }
    if (back.has_bars())
        out.push_back({"back", fmt::format("weld the back: {:.0f} legs", pieces * b.back.legs),
                       work("welding a frame", 2.0 * pieces * b.back.legs), hands, 0, true, 0});
    if (back.has_grid())
        out.push_back({"back", "bond the back to the shell",
                       work("bonding ribs", pieces * b.back.bond_length), hands, 16 * kHour, true, 0});
    if (back.kind == BackKind::sandwich)
        out.push_back({"back", "core and inner skin",
                       work("laying ply", back.sandwich.plies * b.back.sandwich_area) +
                           work("laying core", b.back.sandwich_area),
                       hands, b.shell.resin.demould_time, false, 0});
    out.push_back({"run", "take the mould off and trim it", work("demould tool", 1), hands, 0, true, 0});
    const double holes = static_cast<double>(b.edge.fits.size()) + b.edge.bolts - b.edge.count(Fitting::bolt);
    if (holes > 0)
        out.push_back({"edge", fmt::format("drill the flange from its template: {:.0f} places", holes),
                       work("drilling flange", holes), hands, 0, true, 0});
    if (b.shell_choices.cure_temperature > kelvin(35)) {
        out.push_back({"heat",
                       "post-cure, free-standing, in steps to " +
                           quantity(Kind::temperature, b.shell_choices.cure_temperature),
                       kHour / people, 1, 14 * kHour, true, 0});
    }
    out.push_back({"run", "wet-sand and polish the mould", work(grade.c_str(), area / 2), hands, 0, true, 0});
    release_tasks(out, b.release, "mould");
    // All parts of a pull are laid up together, under one bag.
    const double part_area = b.part.area * b.split.parts();
    double part = 0;
    for (const auto& layer : b.part_choices.layers) {
        part += layer.kind == LayerKind::core  ? work("laying core", part_area)
                : layer.kind == LayerKind::ply ? work("laying ply", part_area)
                                               : work("coating", part_area);
    }
    if (b.part_choices.how != LayUp::hand) part += work("bagging", part_area) + work("setting up bag", 1);
    out.push_back({"part", "lay up the first part", part, hands, b.part.resin.demould_time, false, 0});
    out.push_back({"part", "pull and trim the first part",
                   work("demould part", b.split.parts()) + work("trimming", b.edge.rim_length), hands, 0,
                   true, 0});
    return out;
}

}  // namespace jig::run
