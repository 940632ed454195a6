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

/// Holes and grooves were the infusion's and of no weight; now each core has its own, and its stack feels
/// them. Grooves were square and ran both ways.
void cuts_of_cores(Json& job) {
    const auto bag = job.find("bag");
    if (bag == job.end() || !bag->is_object() || !bag->contains("infusion")) return;
    auto& infusion = (*bag)["infusion"];
    if (!infusion.is_object()) return;
    const auto taken = [&](const char* key) {
        Json out;
        if (const auto at = infusion.find(key); at != infusion.end()) {
            out = *at;
            infusion.erase(at);
        }
        return out;
    };
    const auto hole = taken("hole"), hole_pitch = taken("hole_pitch"), groove = taken("groove"),
               groove_pitch = taken("groove_pitch");
    const auto wide = [](const Json& v) { return v.is_number() && v.get<double>() > 0; };
    Json cut = Json::object();
    if (wide(hole)) {
        cut["hole"] = hole;
        if (!hole_pitch.is_null()) cut["hole_pitch"] = hole_pitch;
    }
    if (wide(groove)) {
        cut["slits"] = "both";
        cut["slit"] = cut["slit_depth"] = groove;
        if (!groove_pitch.is_null()) cut["slit_pitch"] = groove_pitch;
    }
    const auto part = job.find("part");
    if (cut.empty() || part == job.end()) return;
    // The common stack, the zones' and those of builds that are kept.
    const auto work = [&](const auto& self, Json& in) -> void {
        if (in.is_array()) {
            for (auto& each : in) self(self, each);
        } else if (in.is_object()) {
            if (in.value("kind", Json()) == "core" && in.contains("material") && !in.contains("cut"))
                in["cut"] = cut;
            for (const char* key : {"layers", "zones", "builds"}) {
                if (in.contains(key)) self(self, in[key]);
            }
        }
    };
    work(work, *part);
}

constexpr std::array<void (*)(Json&), kJobVersion - 1> kSteps{&bag_from_part, &histories_of_faces,
                                                              &cuts_of_cores};

}  // namespace

Json brought_up(Json job, int version) {
    for (auto v = static_cast<std::size_t>(version); v < static_cast<std::size_t>(kJobVersion); ++v)
        kSteps[v - 1](job);
    job["version"] = kJobVersion;
    return job;
}

}  // namespace jig
