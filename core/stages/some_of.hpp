// A list of names in a sentence.
#pragma once

#include <fmt/format.h>

#include <string>
#include <vector>

namespace jig {

/// "a, b, c and 3 more"; all of them where they are few.
inline std::string some_of(const std::vector<std::string>& names, std::size_t most = 4) {
    std::string out;
    for (std::size_t i = 0; i < names.size() && i < most; ++i) out += (i > 0 ? ", " : "") + names[i];
    if (names.size() > most) out += fmt::format(" and {} more", names.size() - most);
    return out;
}

}  // namespace jig
