#include "batch/on_board.hpp"

#include "core/job/job_file.hpp"

namespace jig::batch {

OnBoard::OnBoard(const Arguments& a, Depth depth, Progress& progress,
                 const std::function<void(Job&, const Shop&)>& change)
    : shop(std::make_shared<const Shop>(
          load_shop(data_folder() + "/library", a.option("library").value_or("")))) {
    job = load_job(a.file("the job file"));
    if (change) change(job, *shop);
    sheet = board.lay(job, shop);
    findings = board.work_out(sheet, depth, progress);
}

void OnBoard::need(Stage last) const {
    for (const auto& call : findings.calls) {
        if (call.key == "input" && call.stage <= last)
            throw InputError(name_of(call.stage).key, worded(call.headline), worded(call.why));
    }
}

double OnBoard::work_out(Depth depth, Progress& progress) {
    std::vector<Ran> ran;
    findings = board.work_out(sheet, depth, progress, 0, &ran);
    double seconds = 0;
    for (const auto& r : ran) seconds += r.seconds;
    return seconds;
}

Json sums_to_json(const std::vector<Figure>& sums) {
    Json out = Json::object();
    for (const auto& s : sums)
        out[s.key] = {{"value", s.value},
                      {"shown", show(s.kind, s.value)},
                      {"name", s.name},
                      {"reason", worded(s.reason)}};
    return out;
}

int show_piece(const Arguments& a, Job& job) {
    const int had = job.edge.piece;
    job.edge.piece = static_cast<int>(a.number("piece", had, 1, part::kMostPieces));
    return had;
}

}  // namespace jig::batch
