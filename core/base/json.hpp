// Reading JSON that a maker or another program wrote, with errors that name the place.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <string_view>

#include "core/base/error.hpp"

// Made once, in json.cpp, instead of in every file that touches it.
extern template class nlohmann::basic_json<>;

namespace jig {

using Json = nlohmann::json;

/// Parses text; throws InputError with the line where it stops being JSON.
Json parse_json(std::string_view where, std::string_view text);

/// A view of one JSON object that remembers its place ("job.json: shell.layers[2]") for messages.
class JsonPlace {
  public:
    JsonPlace(const Json& json, std::string where);

    [[nodiscard]] const Json& raw() const { return json_; }
    [[nodiscard]] const std::string& where() const { return where_; }
    [[nodiscard]] bool has(const char* key) const;
    [[nodiscard]] JsonPlace at(const char* key) const;
    [[nodiscard]] JsonPlace item(std::size_t i) const;
    [[nodiscard]] std::size_t size() const;
    [[nodiscard]] double number() const;
    [[nodiscard]] int whole() const;
    [[nodiscard]] bool flag() const;
    [[nodiscard]] std::string text() const;
    [[noreturn]] void fail(const std::string& what, const std::string& mend) const;

    /// Overwrites `value` where the key is there; a missing key keeps the default, so old files stay
    /// readable.
    void read(const char* key, double& value) const;
    void read(const char* key, int& value) const;
    void read(const char* key, bool& value) const;
    void read(const char* key, std::string& value) const;
    /// As above, refusing what lies outside [low, high].
    void read(const char* key, double& value, double low, double high) const;
    void read(const char* key, int& value, int low, int high) const;

  private:
    const Json& json_;
    std::string where_;
};

}  // namespace jig
