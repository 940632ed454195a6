#include "batch/arguments.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>

#include "core/base/error.hpp"

namespace jig::batch {
namespace {

double plain_number(const std::string& where, const std::string& text) {
    double value = 0;
    const auto* end = text.data() + text.size();
    const auto [stop, bad] = std::from_chars(text.data(), end, value);
    if (bad != std::errc{} || stop != end || !std::isfinite(value))
        throw InputError(where, "\"" + text + "\" is no number", "write it plainly, such as 0.05");
    return value;
}

}  // namespace

std::optional<std::string> Arguments::option(const std::string& name) const {
    const auto at = options.find(name);
    if (at == options.end()) return std::nullopt;
    return at->second;
}

double Arguments::number(const std::string& name, double otherwise, double low, double high) const {
    return option(name) ? need_number(name, low, high) : otherwise;
}

double Arguments::need_number(const std::string& name, double low, double high) const {
    const auto text = option(name);
    if (!text)
        throw InputError("--" + name, "it is missing", "add it; see jigshell-batch " + verb + " --help");
    const double value = plain_number("--" + name, *text);
    if (value < low || value > high)
        throw InputError("--" + name, fmt::format("{:g} lies outside {:g} to {:g}", value, low, high),
                         "give it a value inside");
    return value;
}

std::vector<double> Arguments::need_numbers(const std::string& name, std::size_t count,
                                            const char* example) const {
    const auto text = option(name);
    if (!text) throw InputError("--" + name, "it is missing", std::string("give numbers such as ") + example);
    std::vector<double> out;
    std::size_t at = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const auto comma = i + 1 < count ? text->find(',', at) : text->size();
        if (comma == std::string::npos || comma < at)
            throw InputError("--" + name, fmt::format("{} numbers with commas are needed", count),
                             std::string("write them as ") + example);
        out.push_back(plain_number("--" + name, text->substr(at, comma - at)));
        at = comma + 1;
    }
    return out;
}

std::array<double, 3> Arguments::need_direction(const std::string& name) const {
    const auto v = need_numbers(name, 3, "0,0,1");
    if (std::hypot(v[0], v[1], v[2]) < 1e-12)
        throw InputError("--" + name, "the direction has no length", "give one such as 0,0,1");
    return {v[0], v[1], v[2]};
}

const std::string& Arguments::file(const char* what) const {
    if (files.empty())
        throw InputError(verb, fmt::format("{} is missing", what),
                         "name it after the verb; see jigshell-batch " + verb + " --help");
    if (files.size() > 1)
        throw InputError(verb, "it works on one file and \"" + files[1] + "\" is a second",
                         "call it once for each");
    return files.front();
}

Arguments read_arguments(const std::vector<std::string>& words, const std::vector<std::string>& known) {
    Arguments out;
    for (std::size_t i = 0; i < words.size(); ++i) {
        const auto& word = words[i];
        if (word == "--help" || word == "-h") {
            out.help = true;
        } else if (word.rfind("--", 0) == 0) {
            auto name = word.substr(2);
            std::string value;
            const auto equals = name.find('=');
            if (equals != std::string::npos) {
                value = name.substr(equals + 1);
                name.resize(equals);
            }
            if (std::find(known.begin(), known.end(), name) == known.end())
                throw InputError(word, "there is no such option here", "see --help for those there are");
            if (equals == std::string::npos) {
                if (i + 1 >= words.size())
                    throw InputError(word, "its value is missing", "write it behind the option");
                value = words[++i];
            }
            if (!out.options.emplace(name, value).second)
                throw InputError(word, "it is given twice", "give it once");
        } else if (out.verb.empty()) {
            out.verb = word;
        } else {
            out.files.push_back(word);
        }
    }
    return out;
}

}  // namespace jig::batch
