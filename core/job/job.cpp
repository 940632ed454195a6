#include "core/job/job.hpp"

#include <fmt/format.h>

#include "core/job/migrations.hpp"

namespace jig {

Job::Job() = default;
Job::Job(const Job&) = default;
Job::Job(Job&&) noexcept = default;
Job& Job::operator=(const Job&) = default;
Job& Job::operator=(Job&&) noexcept = default;
Job::~Job() = default;
bool Job::operator==(const Job&) const = default;

Json job_to_json(const Job& job) {
    auto out = to_json_value(job);
    out["format"] = "jigshell job";
    out["version"] = kJobVersion;
    return out;
}

Job job_from_json(const Json& json, const std::string& where) {
    const JsonPlace place(json, where);
    if (!json.is_object() || !place.has("format") || !json["format"].is_string() ||
        json["format"] != "jigshell job") {
        place.fail("this is no Jig Shell job", "choose a file that ends in .jigshell");
    }
    const int version = place.at("version").whole();
    if (version > kJobVersion) {
        place.fail(
            fmt::format("the job is of version {}, newer than this program's {}", version, kJobVersion),
            "open it with a newer Jig Shell; the file has not been touched");
    }
    if (version < 1)
        place.fail("the job has no version that this program knows", "open it with the program that made it");
    Job job;
    if (version == kJobVersion) {
        from_json_value(place, job);
    } else {
        const auto now = brought_up(json, version);
        from_json_value(JsonPlace(now, where), job);
    }
    return job;
}

void check_ranges(const Job& job) {
    static_cast<void>(job_from_json(job_to_json(job), "job"));
}

std::vector<Stage> stages_changed(const Job& before, const Job& after) {
    const auto a = job_to_json(before), b = job_to_json(after);
    std::vector<Stage> out;
    for (std::size_t s = 0; s < kStages.size(); ++s) {
        const auto stage = static_cast<Stage>(s);
        if (a.at(kStages[s].key) != b.at(kStages[s].key) ||
            (stage == Stage::shape && before.attachments != after.attachments))
            out.push_back(stage);
    }
    return out;
}

Job patched(const Job& job, const Json& patch) {
    auto json = job_to_json(job);
    json.merge_patch(patch);
    auto out = job_from_json(json, "job");
    out.attachments = job.attachments;
    return out;
}

bool infuses(const Job& job, Infused of) {
    if (of == Infused::shell) return job.shell.how == LayUp::infused && !plug::no_plug(job.plug);
    return job.part.how == LayUp::infused && job.brief.process != Process::squeeze;
}

Infused infused_shown(const Job& job) {
    const bool part = infuses(job, Infused::part), shell = infuses(job, Infused::shell);
    return part && shell ? job.bag.shows : shell ? Infused::shell : Infused::part;
}

const bag::Infusion& infusion_shown(const Job& job) {
    return job.bag.of(infused_shown(job));
}

bag::Infusion& infusion_shown(Job& job) {
    return infused_shown(job) == Infused::shell ? job.bag.shell_infusion : job.bag.infusion;
}

}  // namespace jig
