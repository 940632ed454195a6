#include "app/charts/charts.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

#include "core/stages/heat/legs.hpp"

namespace jig::app {
bool has_chart(Stage stage) {
    return stage == Stage::run || stage == Stage::heat || stage == Stage::log;
}

Plot cost_plot(const run::Findings& run, const Wording& w) {
    const int made = std::max(1, run.made), most = std::max(20, 2 * made);
    const double each = run.ledgers[0].total();
    Plot plot{"Cost of one part against the number made",
              {"parts made", Kind::count, 1, static_cast<double>(most), {}},
              {"cost of one part",
               Kind::money,
               0,
               1.02 * std::min(run.cost_per_part(1), 4 * run.cost_per_part(made) + each),
               {}},
              {{"with its share of the tool", {}, Tone::petrol, false, false},
               {"the part alone", {}, Tone::faint, true, false}},
              {},
              {{{static_cast<double>(made), run.cost_per_part(made)},
                QString("%1: %2 each")
                    .arg(made == 1 ? QString("1 part") : QString("%1 parts").arg(made),
                         shown(Kind::money, run.cost_per_part(made), w))}},
              {}};
    // Of a long run a few hundred numbers are enough to read and to copy.
    const int step = std::max(1, most / 400);
    for (int n = 1; n <= most; n += n < 60 ? 1 : step) {
        plot.lines[0].points.emplace_back(n, run.cost_per_part(n));
        plot.lines[1].points.emplace_back(n, each);
    }
    return plot;
}

Plot growth_plot(const heat::Findings& heat, bool direct, double tolerance, const Wording& w) {
    const auto& c = heat.chain;
    std::vector<std::tuple<const char*, double, double>> steps{
        {{"plug in the room", c.room, 0.0},
         {"plug where the shell gels", c.shell_gel, heat.sizes.plug_hot},
         {"tool in the room", c.room, heat.sizes.tool_room},
         {"tool where the part gels", c.part_gel, heat.sizes.tool_hot},
         {"part in the room", c.room, heat.sizes.part_room}}};
    // Nothing is taken off anything before the part is.
    if (direct)
        steps = {{"mould as it is cut", c.room, 0.0},
                 {"mould where the part gels", c.part_gel, heat.sizes.tool_hot},
                 {"part in the room", c.room, heat.sizes.part_room}};
    Plot plot{QString("Size over %1, from %2 to part")
                  .arg(shown(Kind::length, heat.length, w), direct ? "mould" : "plug"),
              {"step", Kind::count, 0, static_cast<double>(steps.size() - 1), {}},
              {"beyond the drawing", Kind::thickness, 0, 0, {}},
              {{"beyond the drawing", {}, Tone::petrol, false, true}},
              {{-tolerance, tolerance, "tolerance ±" + shown(Kind::thickness, tolerance, w)}},
              {},
              {}};
    double reach = tolerance;
    for (std::size_t i = 0; i < steps.size(); ++i) {
        const auto& [name, kelvins, share] = steps[i];
        const QPointF at(static_cast<double>(i), share * heat.length);
        plot.x.places.push_back(QString("%1\n%2").arg(name, shown(Kind::temperature, kelvins, w)));
        plot.lines[0].points.push_back(at);
        plot.notes.push_back({at, (at.y() > 0 ? "+" : "") + shown(Kind::thickness, at.y(), w)});
        reach = std::max(reach, std::abs(at.y()));
    }
    plot.y.high = 1.25 * reach;
    plot.y.low = -plot.y.high;
    return plot;
}

namespace {

/// Over all places of a cure's walls that react: the lowest or highest value of `field` at each time.
std::vector<QPointF> extreme_of(const heat::CureRun& run, std::vector<double> WallPlace::*field,
                                bool highest) {
    std::vector<QPointF> out;
    const auto& times = run.cured.history.times;
    for (std::size_t t = 0; t < times.size(); ++t) {
        std::optional<double> best;
        run.each([&](const std::string&, const Wall& wall, const WallHistory& h) {
            for (const auto& place : h.places) {
                if (!wall.layers[place.layer].resin || t >= (place.*field).size()) continue;
                const double v = (place.*field)[t];
                if (!best || (highest ? v > *best : v < *best)) best = v;
            }
        });
        if (best) out.emplace_back(times[t], *best);
    }
    return out;
}

QString word_of(CureOf of) {
    return QString::fromUtf8(said(of).data(), static_cast<int>(said(of).size()));
}

}  // namespace

Plot cure_plot(const heat::CureRun& run) {
    Plot plot{QString("Cure: %1").arg(word_of(run.of)),
              {"time", Kind::hours, 0, std::max(60.0, run.seconds), {}},
              {"temperature", Kind::temperature, 0, 0, {}},
              {},
              {},
              {},
              {}};
    PlotLine air{"air", {}, Tone::faint, true, false};
    for (const auto& corner : run.cured.air.corners) air.points.emplace_back(corner.time, corner.T);
    plot.lines = {air,
                  {"hottest", extreme_of(run, &WallPlace::T, true), Tone::clay, false, false},
                  {"coolest", extreme_of(run, &WallPlace::T, false), Tone::petrol, false, false},
                  {"Tg", extreme_of(run, &WallPlace::Tg, false), Tone::moss, true, false}};
    plot.key = QString::fromStdString(std::string(file_word(run.of)));
    for (const auto& corner : heat::leg_corners(run.legs, run.cured.air)) {
        const auto& at = run.cured.air.corners[corner.corner];
        plot.grips.push_back({{at.time, at.T},
                              QString("leg %1, %2")
                                  .arg(corner.leg + 1)
                                  .arg(corner.held ? "how long it holds" : "how hot and how fast"),
                              {heat::kHoldStep, 1}});
    }
    std::erase_if(plot.lines, [](const PlotLine& l) { return l.points.empty(); });
    double low = 1e9, high = 0;
    for (const auto& line : plot.lines) {
        // Fresh resin's Tg lies far below the room: it comes into the picture when it matters.
        if (line.name == "Tg") continue;
        for (const auto& p : line.points) {
            low = std::min(low, p.y());
            high = std::max(high, p.y());
        }
    }
    for (auto& line : plot.lines) {
        if (line.name != "Tg") continue;
        std::erase_if(line.points, [&](const QPointF& p) { return p.y() < low - 5; });
        for (const auto& p : line.points) high = std::max(high, p.y());
    }
    std::erase_if(plot.lines, [](const PlotLine& l) { return l.points.empty(); });
    plot.y.low = low - 5;
    plot.y.high = high + 5;
    return plot;
}

Plot degree_plot(const heat::CureRun& run) {
    Plot plot{"Degree of cure",
              {"time", Kind::hours, 0, std::max(60.0, run.seconds), {}},
              {"cured", Kind::ratio, 0, 1, {}},
              {{"furthest", extreme_of(run, &WallPlace::cure, true), Tone::clay, false, false},
               {"least", extreme_of(run, &WallPlace::cure, false), Tone::petrol, false, false}},
              {},
              {},
              {}};
    // Where the last of all that was fresh gels.
    std::optional<QPointF> last;
    run.each([&](const std::string&, const Wall& wall, const WallHistory& h) {
        for (const auto& gel : h.gels) {
            if (!gel.all || *gel.all <= 0 || *gel.all > run.seconds || (last && last->x() >= *gel.all))
                continue;
            last = QPointF(*gel.all, wall.layers[gel.layer].resin->gel);
        }
    });
    if (last) plot.notes.push_back({*last, "gelled all through"});
    plot.aside = true;
    return plot;
}

Plot go_plot(const heat::OneGo& go, const QString& of, const Wording& w) {
    Plot plot{QString("%1: by how thick it is laid at once").arg(of),
              {"plies laid at once", Kind::thickness, 0, heat::kThickest, {}},
              {"hottest", Kind::temperature, go.air, go.limits.laid, {}},
              {{"plies", {}, Tone::clay, false, false},
               {"under them", {}, Tone::petrol, false, false},
               {"limit", {}, Tone::moss, true, false}},
              {},
              {},
              {},
              true};
    const double most = go.most.value_or(0);
    plot.x.high = std::min(heat::kThickest, std::max({1.8 * most, 1.3 * go.laid, 0.002}));
    auto points = go.curve;
    points.push_back(go.whole);
    std::sort(points.begin(), points.end(),
              [](const auto& a, const auto& b) { return a.thickness < b.thickness; });
    for (std::size_t i = 0; i < points.size(); ++i) {
        const auto& p = points[i];
        plot.lines[0].points.emplace_back(p.thickness, p.peak);
        if (p.under > 0) plot.lines[1].points.emplace_back(p.thickness, p.under);
        // One beyond the edge, so that lines go on to it.
        if (p.thickness > plot.x.high) break;
    }
    // What it may come to and this lay-up are what is looked at; what runs away goes out of the picture.
    const double room = go.limits.laid - go.air;
    plot.y.high = std::max(go.limits.laid + room, std::min(go.whole.peak, go.limits.laid + 4 * room));
    for (const auto& line : plot.lines) {
        for (const auto& p : line.points) plot.y.low = std::min(plot.y.low, p.y());
    }
    plot.y.low -= 0.05 * (plot.y.high - plot.y.low);
    plot.lines[2].points = {{0, go.limits.laid}, {plot.x.high, go.limits.laid}};
    std::erase_if(plot.lines, [](const PlotLine& l) { return l.points.empty(); });
    if (go.laid < plot.x.high)
        plot.notes.push_back({{go.laid, go.whole.peak}, "all of it: " + shown(Kind::thickness, go.laid, w)});
    return plot;
}

Plot mass_plot(const log::Choices& log, double planned) {
    Plot plot{"Mass of each pull",
              {"pull", Kind::count, 0.5, 6.5, {}},
              {"mass", Kind::mass, planned, planned, {}},
              {},
              {},
              {},
              "No pull has been weighed yet. \"Note a pull\" in the slip starts the record."};
    PlotLine weighed{"weighed", {}, Tone::petrol, false, true}, plan{"planned", {}, Tone::moss, true, false};
    int pulls = 0;
    for (const auto& e : log.entries) {
        if (e.kind != EntryKind::pull) continue;
        ++pulls;
        if (!(e.mass > 0)) continue;
        weighed.points.emplace_back(pulls, e.mass);
        plot.y.low = std::min(plot.y.low, e.mass);
        plot.y.high = std::max(plot.y.high, e.mass);
    }
    if (weighed.points.empty()) return plot;
    plot.x.high = std::max(6, pulls) + 0.5;
    const double pad = std::max(0.02 * plot.y.high, 0.3 * (plot.y.high - plot.y.low));
    plot.y.low = std::max(0.0, plot.y.low - pad);
    plot.y.high += pad;
    for (const auto& p : weighed.points) plan.points.emplace_back(p.x(), planned);
    if (plan.points.size() == 1) plan.points = {{0.5, planned}, {plot.x.high, planned}};
    plot.lines = {weighed, plan};
    return plot;
}

Plot pump_plot(const bag::Findings& bag, double wanted) {
    const double end = bag.down ? 1.5 * *bag.down : 600;
    Plot plot{"Drawing the bag down, as planned",
              {"time", Kind::duration, 0, std::max(60.0, end), {}},
              {"absolute pressure", Kind::pressure, 0, 1.03 * bag.room, {}},
              {{"in the bag", {}, Tone::petrol, false, false}, {"wanted", {}, Tone::moss, true, false}},
              {},
              {},
              {}};
    constexpr int kSteps = 60;
    for (int i = 0; i <= kSteps; ++i) {
        const double t = plot.x.high * i / kSteps;
        plot.lines[0].points.emplace_back(t, std::min(bag.room, bag.pump.at(t)));
    }
    plot.lines[1].points = {{0, wanted}, {plot.x.high, wanted}};
    return plot;
}

Plot drop_plot(const bag::Findings& bag, const bag::DropTest& test) {
    const auto& fit = *bag.drop;
    PlotLine read{"read", {}, Tone::tape, false, true}, line{"line", {}, Tone::petrol, false, false},
        may{"as it may", {}, Tone::moss, true, false};
    auto readings = test.readings;
    std::sort(readings.begin(), readings.end(),
              [](const auto& a, const auto& b) { return a.seconds < b.seconds; });
    const double first = readings.front().seconds, last = readings.back().seconds;
    double low = fit.from, high = fit.from + std::max(fit.rise, bag.allowed) * fit.seconds;
    for (const auto& r : readings) {
        read.points.emplace_back(r.seconds, r.pressure);
        low = std::min(low, r.pressure);
        high = std::max(high, r.pressure);
    }
    line.points = {{first, fit.from}, {last, fit.from + fit.rise * fit.seconds}};
    may.points = {{first, fit.from}, {last, fit.from + bag.allowed * fit.seconds}};
    const double pad = std::max(1.0, 0.1 * (high - low));
    return {"Drop test, shut",
            {"time", Kind::duration, first, last, {}},
            {"absolute pressure", Kind::pressure, std::max(0.0, low - pad), high + pad, {}},
            {line, may, read},
            {},
            {},
            {}};
}

Plot resin_plot(const part::ResinAccount& account, const Wording& w) {
    const double area = account.asked.area, here = account.over_cloth(area);
    constexpr double kSmallest = 0.02;
    const double least = std::min(kSmallest, area / 4), most = std::max(1.0, 2.5 * area);
    PlotLine all{"resin ÷ dry cloth", {}, Tone::petrol, false, false};
    // What a very small one takes goes off the top.
    const double top = std::max(3.0, 1.6 * here);
    // Closer where it bends.
    for (int i = 0; i <= 80; ++i) {
        const double at = least * std::pow(most / least, i / 80.0), over = account.over_cloth(at);
        if (over <= top) all.points.emplace_back(at, over);
    }
    return {"Resin to mix, by the size of the part",
            {"face", Kind::area, 0, most, {}},
            {"for each kg of dry cloth", Kind::factor, 0, top, {}},
            {all},
            {},
            {{{area, here}, "this part: " + shown(Kind::factor, here, w)}},
            {}};
}

std::vector<Plot> plots_of(const Job& job, const Findings& f, Stage stage, const Wording& w) {
    if (stage == Stage::bag && f.bag && f.bag->closed) {
        std::vector<Plot> out{pump_plot(*f.bag, job.bag.wanted)};
        // The findings are the last ones: the job may have lost its readings since.
        if (f.bag->drop && job.bag.drop.readings.size() > 1) out.push_back(drop_plot(*f.bag, job.bag.drop));
        return out;
    }
    if (stage == Stage::run && f.run) return {cost_plot(*f.run, w)};
    if (stage == Stage::heat && f.heat) {
        std::vector<Plot> out{growth_plot(*f.heat, plug::no_plug(job.plug), job.brief.tolerance, w)};
        for (const auto& run : f.heat->cures->runs) {
            // A joint or an earlier go that sets in the room is told beside the stand: here it would stand in
            // the others' way.
            const bool aside = run.of == CureOf::with_back || run.of == CureOf::joined ||
                               run.of == CureOf::part_first || run.of == CureOf::part_next;
            if (aside && run.usual && run.highest_air <= job.heat.room + heat::kWarm) continue;
            out.push_back(cure_plot(run));
            out.push_back(degree_plot(run));
            if (const auto* go = f.heat->go(run.of)) out.push_back(go_plot(*go, word_of(run.of), w));
        }
        return out;
    }
    if (stage == Stage::log && f.part) return {mass_plot(job.log, f.part->mass)};
    return {};
}

}  // namespace jig::app
