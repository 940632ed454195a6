#include "core/job/migrations.hpp"

#include <array>

#include "core/job/job.hpp"

namespace jig {
namespace {

/// Bag became a stage of its own. Part had laid what its way of laying asks for: peel ply always, perforated
/// film under a bag alone, one hose of 2 m; tape and film had no ease beyond the library's waste.
void bag_from_part(Json& job) {
    if (job.contains("bag")) return;
    const auto part = job.find("part");
    const bool told =
        part != job.end() && part->is_object() && part->contains("how") && (*part)["how"].is_string();
    const auto how = told ? (*part)["how"].get<std::string>() : std::string(file_word(part::Choices{}.how));
    job["bag"] = Json{{"peel_ply", true}, {"film", how == "bagged" ? "perforated" : "none"}, {"hose", 2.0}};
}

/// One flag said that the face had been waxed before; now each kind of face has its history. Where release
/// was planned on a mould that had been waxed, that is what was meant.
void histories_of_faces(Json& job) {
    const auto release = job.find("release");
    if (release == job.end() || !release->is_object() || !release->contains("wax_before")) return;
    const auto waxed = (*release)["wax_before"];
    if (!waxed.is_boolean()) return;
    release->erase("wax_before");
    if (waxed.get<bool>() && !release->contains("mould")) (*release)["mould"] = Json{{"history", "waxed"}};
}

constexpr std::array<void (*)(Json&), kJobVersion - 1> kSteps{&bag_from_part, &histories_of_faces};

}  // namespace

Json brought_up(Json job, int version) {
    for (auto v = static_cast<std::size_t>(version); v < static_cast<std::size_t>(kJobVersion); ++v)
        kSteps[v - 1](job);
    job["version"] = kJobVersion;
    return job;
}

}  // namespace jig
