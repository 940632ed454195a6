#include "core/job/tables.hpp"

#include "core/stages/back/trial.hpp"
#include "core/stages/part/trial.hpp"

#include <fmt/format.h>

namespace jig {

std::string csv_cell(const std::string& text) {
    if (text.find_first_of(",\"\n\r;") == std::string::npos) return text;
    std::string out = "\"";
    for (const char c : text) out += c == '"' ? std::string("\"\"") : std::string(1, c);
    return out + "\"";
}

std::string materials_csv(const Findings& f) {
    std::string out = "ledger,stage,material,amount_si,amount,waste,cost,note\n";
    if (!f.run) return out;
    for (const auto& m : f.run->materials) {
        out += fmt::format("{},{},{},{:.6g},{},{:.3g},{:.2f},{}\n", said(m.ledger), name_of(m.stage).said,
                           csv_cell(m.what), m.amount, csv_cell(show(m.kind, m.amount)), m.waste, m.cost,
                           csv_cell(worded(m.note)));
    }
    return out;
}

std::string trial_table(const back::Trial& trial) {
    std::string out =
        "case,load,max_displacement_m,face_error_m,where,skin_index,foam_index,buckling_factor,meshes_differ_"
        "m\n";
    for (const auto& r : trial.cases)
        out += fmt::format("{},{},{:.6g},{:.6g},{},{:.3g},{:.3g},{},{:.3g}\n",
                           csv_cell(std::string(said(r.kind))), csv_cell(worded(r.how)), r.moves, r.error,
                           csv_cell(r.where), r.skin, r.foam,
                           r.buckles > 0 ? fmt::format("{:.3g}", r.buckles) : std::string(), r.differs);
    return out;
}

std::string trial_table(const part::Trial& trial) {
    std::string out =
        "name,load,max_displacement_m,where,holds_times,then,cracks,fibres,core_shear,wrinkling,crushing,"
        "buckling_factor,meshes_differ_m\n";
    for (const auto& r : trial.loads) {
        const auto [share, way] = r.most();
        out += fmt::format("{},{},{:.6g},{},{},{},{:.3g},{:.3g},{:.3g},{:.3g},{:.3g},{},{:.3g}\n",
                           csv_cell(r.name), csv_cell(worded(r.how)), r.moves, csv_cell(r.where),
                           share > 0 ? fmt::format("{:.4g}", 1 / share) : std::string(),
                           csv_cell(part::said(way)), r.cracks, r.fibres, r.core_shear, r.wrinkles, r.crushes,
                           r.buckles > 0 ? fmt::format("{:.3g}", r.buckles) : std::string(), r.differs);
    }
    return out;
}

std::string layer_table(const std::vector<bag::BagLayer>& layers) {
    std::string out =
        "layer,covers,area_m2,cut_length_m,cut_width_m,roll_width_m,lengths,off_the_roll_m,darts\n";
    const auto known = [](double v) { return v > 0 ? fmt::format("{:.3f}", v) : std::string(); };
    for (const auto& l : layers)
        out += fmt::format("{},{},{:.4f},{},{},{},{},{},{}\n", csv_cell(l.name), csv_cell(worded(l.covers)),
                           l.area, known(l.length), known(l.width), known(l.roll),
                           l.cut.strips > 0 ? fmt::format("{}", l.cut.strips) : std::string(),
                           known(l.cut.metres), l.judged ? fmt::format("{}", l.darts.size()) : std::string());
    return out;
}

namespace {

std::string looked(const std::vector<std::string>& looks) {
    std::string out;
    for (const auto& l : looks) out += (out.empty() ? "" : "; ") + worded(l);
    return out;
}

}  // namespace

std::string days_csv(const Findings& f) {
    std::string out = "day,from,to,stage,task,people,hours,wait_after_hours,looks_before_going_on\n";
    if (!f.run) return out;
    for (const auto& b : f.run->plan.bookings) {
        const auto& task = f.run->tasks[b.task];
        const auto from = clock_words(b.from), to = clock_words(b.to);
        out += fmt::format("{},{},{},{},{},{},{:.2f},{:.2f},{}\n", from.substr(4, from.find(',') - 4),
                           from.substr(from.find(',') + 2), to.substr(to.find(',') + 2), task.stage,
                           csv_cell(worded(task.name)), task.people, (b.to - b.from) / 3600, task.wait / 3600,
                           csv_cell(run::last_of(*f.run, b) ? looked(f.run->looks[b.task]) : std::string()));
    }
    return out;
}

}  // namespace jig
