// Everything that the maker decided.
#pragma once

#include <memory>

#include "core/stages/back/choices.hpp"
#include "core/stages/bag/choices.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/edge/choices.hpp"
#include "core/stages/heat/choices.hpp"
#include "core/stages/log/choices.hpp"
#include "core/stages/part/choices.hpp"
#include "core/stages/plug/choices.hpp"
#include "core/stages/release/choices.hpp"
#include "core/stages/run/choices.hpp"
#include "core/stages/shape/choices.hpp"
#include "core/stages/shell/choices.hpp"
#include "core/stages/split/choices.hpp"
#include "core/stages/stage.hpp"

namespace jig {

/// A file kept inside the job as it came. Shared between undo steps; equal when the bytes are.
struct Attachment {
    std::string name;
    std::shared_ptr<const std::string> bytes;
    bool operator==(const Attachment& other) const {
        return name == other.name &&
               (bytes == other.bytes || (bytes && other.bytes && *bytes == *other.bytes));
    }
};

enum class CutAlong { length, width };
template <>
struct Words<CutAlong> {
    static constexpr std::array all{Word{"length", "across the length"}, Word{"width", "across the width"}};
};

/// Where the section is drawn: `at` goes from 0 to 1 over the shape's extent.
struct Cut {
    CutAlong across = CutAlong::length;
    double at = 0.5;
    static void fields(auto& c, auto&& v) {
        v("across", c.across);
        v("at", c.at, 0.0, 1.0);
    }
    bool operator==(const Cut&) const = default;
};

struct Job {
    brief::Choices brief;
    shape::Choices shape;
    split::Choices split;
    plug::Choices plug;
    edge::Choices edge;
    shell::Choices shell = shell::start_from(School::glass_epoxy);
    back::Choices back;
    release::Choices release;
    part::Choices part = part::start();
    bag::Choices bag;
    heat::Choices heat;
    run::Choices run;
    log::Choices log;
    Cut cut;
    std::vector<std::string> looked_at;  ///< keys of the stages that the maker has opened
    std::vector<std::string> settled;    ///< keys of the stages that the maker has settled
    std::vector<Attachment> attachments;

    // Made once, in job.cpp: a job is large, and half of all files make, copy or drop one.
    Job();
    Job(const Job&);
    Job(Job&&) noexcept;
    Job& operator=(const Job&);
    Job& operator=(Job&&) noexcept;
    ~Job();
    bool operator==(const Job&) const;

    static void fields(auto& c, auto&& v) {
        v("brief", c.brief);
        v("shape", c.shape);
        v("split", c.split);
        v("plug", c.plug);
        v("edge", c.edge);
        v("shell", c.shell);
        v("back", c.back);
        v("release", c.release);
        v("part", c.part);
        v("bag", c.bag);
        v("heat", c.heat);
        v("run", c.run);
        v("log", c.log);
        v("cut", c.cut);
        v("looked_at", c.looked_at);
        v("settled", c.settled);
    }

    [[nodiscard]] const Attachment* attached(const std::string& name) const {
        for (const auto& a : attachments) {
            if (a.name == name) return &a;
        }
        return nullptr;
    }
};

inline constexpr int kJobVersion = 4;

/// The job without its attachments as JSON with "format" and "version" (docs/file-format.md), and back.
/// Reading brings older versions up to this one (migrations.hpp) and keeps defaults for what is missing;
/// throws InputError for newer versions, foreign files, wrong types and values outside their range.
Json job_to_json(const Job& job);
Job job_from_json(const Json& json, const std::string& where);

/// Throws InputError where a file of this job could not be read again: a value out of its range.
void check_ranges(const Job& job);

/// The stages whose choices differ between two jobs, in working order; what is attached belongs to the shape.
std::vector<Stage> stages_changed(const Job& before, const Job& after);

/// Whether the part, or the shell, is filled under its bag.
bool infuses(const Job& job, Infused of);
/// Whose resin is shown and worked on: what the maker chose where both are infused, else the one that is.
Infused infused_shown(const Job& job);
const bag::Infusion& infusion_shown(const Job& job);
bag::Infusion& infusion_shown(Job& job);

/// `job` with a merge patch (RFC 7396) of its JSON laid over it. Throws InputError.
Job patched(const Job& job, const Json& patch);

}  // namespace jig
