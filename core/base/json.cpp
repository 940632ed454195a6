#include "core/base/json.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

template class nlohmann::basic_json<>;

namespace jig {

Json parse_json(std::string_view where, std::string_view text) {
    try {
        return Json::parse(text);
    } catch (const Json::parse_error& e) {
        const auto upto = text.substr(0, std::min<std::size_t>(e.byte, text.size()));
        const auto line = 1 + std::count(upto.begin(), upto.end(), '\n');
        throw InputError(fmt::format("{} line {}", where, line), "this is not JSON from here on",
                         "check for a missing comma, quote or bracket just before it");
    } catch (const Json::exception&) {
        throw InputError(std::string(where), "the text cannot be read as JSON", "save it as UTF-8 text");
    }
}

JsonPlace::JsonPlace(const Json& json, std::string where) : json_(json), where_(std::move(where)) {}

bool JsonPlace::has(const char* key) const {
    return json_.is_object() && json_.contains(key);
}

JsonPlace JsonPlace::at(const char* key) const {
    if (!has(key)) fail(fmt::format("\"{}\" is missing", key), "add it");
    return {json_.at(key), where_ + "." + key};
}

JsonPlace JsonPlace::item(std::size_t i) const {
    return {json_.at(i), fmt::format("{}[{}]", where_, i)};
}

std::size_t JsonPlace::size() const {
    if (!json_.is_array()) fail("a list is expected here", "write it in [ ]");
    return json_.size();
}

double JsonPlace::number() const {
    if (!json_.is_number() || !std::isfinite(json_.get<double>()))
        fail("a number is expected here", "write a plain number in SI units");
    return json_.get<double>();
}

int JsonPlace::whole() const {
    const double value = number();
    if (value != std::floor(value) || std::abs(value) > 1e9)
        fail("a whole number is expected here", "round it");
    return static_cast<int>(value);
}

bool JsonPlace::flag() const {
    if (!json_.is_boolean()) fail("true or false is expected here", "write one of them without quotes");
    return json_.get<bool>();
}

std::string JsonPlace::text() const {
    if (!json_.is_string()) fail("text is expected here", "put it in quotes");
    return json_.get<std::string>();
}

void JsonPlace::fail(const std::string& what, const std::string& mend) const {
    throw InputError(where_, what, mend);
}

void JsonPlace::read(const char* key, double& value) const {
    if (has(key)) value = at(key).number();
}

void JsonPlace::read(const char* key, int& value) const {
    if (has(key)) value = at(key).whole();
}

void JsonPlace::read(const char* key, bool& value) const {
    if (has(key)) value = at(key).flag();
}

void JsonPlace::read(const char* key, std::string& value) const {
    if (has(key)) value = at(key).text();
}

void JsonPlace::read(const char* key, double& value, double low, double high) const {
    read(key, value);
    if (has(key) && (value < low || value > high)) {
        at(key).fail(fmt::format("{:g} lies outside {:g} to {:g}", value, low, high),
                     "give it a value inside");
    }
}

void JsonPlace::read(const char* key, int& value, int low, int high) const {
    double number = value;
    if (has(key)) {
        number = at(key).whole();
        read(key, number, low, high);
    }
    value = static_cast<int>(number);
}

}  // namespace jig
