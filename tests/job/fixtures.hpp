// The demo job and shop, worked out once.
#pragma once

#include <array>
#include <filesystem>

#include "core/job/evaluate.hpp"
#include "core/job/job_file.hpp"
#include "tests/quiet.hpp"

namespace fixtures {

inline std::string data() {
    return JIG_SOURCE_DATA;
}

inline const jig::Shop& shop() {
    static const auto loaded = jig::load_shop(data() + "/library");
    return loaded;
}

inline jig::Job demo(const std::string& name = "cello-case") {
    return jig::load_job(data() + "/demo/" + name + ".json");
}

/// The shop for a board, which outlives it.
inline std::shared_ptr<const jig::Shop> shared_shop() {
    return {std::shared_ptr<const jig::Shop>{}, &shop()};
}

/// The stages alone; a tool on trial is asked for where a test is about it. One board for each depth serves
/// all tests of a program, as it serves a window from edit to edit: what a deeper look found is shown to a
/// shallower one, so they share none. That kept findings are fresh ones is a test of its own.
inline jig::Findings worked_out(const jig::Job& job, jig::Depth depth = jig::Depth::stages) {
    static std::array<jig::JobBoard, 3> boards;
    auto& board = boards.at(static_cast<std::size_t>(depth));
    return board.work_out(board.lay(job, shared_shop()), depth, quiet);
}

inline const jig::Call* call(const jig::Findings& f, const std::string& key) {
    for (const auto& c : f.calls) {
        if (c.key == key) return &c;
    }
    return nullptr;
}

/// A job small and coarse enough for many evaluations in a test.
inline jig::Job small_job() {
    jig::Job job;
    job.shape.tray.facet = 0.03;
    return job;
}

/// A demo with facets so coarse that it is worked out in a fraction of the time: what it decides is the same.
inline jig::Job coarse(const std::string& name, double facet) {
    auto job = demo(name);
    job.shape.tray.facet = job.shape.stations.facet = facet;
    return job;
}

/// The same under a bag.
inline jig::Job bagged() {
    auto job = small_job();
    job.part.how = jig::LayUp::bagged;
    return job;
}

/// As a face lies on the bench.
inline const jig::Frame kLevel{jig::Point::UnitX(), jig::Point::UnitY(), jig::Point::UnitZ()};

/// A folder of its own that goes when the test ends.
struct Folder {
    std::filesystem::path path;
    Folder() {
        std::string name = (std::filesystem::temp_directory_path() / "jigshell-test-XXXXXX").string();
        path = ::mkdtemp(name.data());
    }
    Folder(const Folder&) = delete;
    Folder& operator=(const Folder&) = delete;
    ~Folder() {
        std::error_code none;
        std::filesystem::remove_all(path, none);
    }
    [[nodiscard]] std::string operator/(const std::string& file) const { return (path / file).string(); }
};

}  // namespace fixtures
