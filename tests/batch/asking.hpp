// Asks the headless command as its main does, in this process.
#pragma once

#include <fstream>
#include <sstream>

#include "batch/verbs.hpp"
#include "tests/job/fixtures.hpp"
#include "tests/quiet.hpp"

namespace asking {

struct Answer {
    int code;
    std::string out, err;
    [[nodiscard]] jig::Json json() const { return jig::Json::parse(out); }
};

inline Answer ask(const std::vector<std::string>& words) {
    std::ostringstream out, err;
    const int code = jig::batch::run(words, out, err, quiet);
    return {code, out.str(), err.str()};
}

inline std::string put(const fixtures::Folder& folder, const std::string& name, const std::string& bytes) {
    const auto path = folder / name;
    std::ofstream(path, std::ios::binary) << bytes;
    return path;
}

}  // namespace asking
