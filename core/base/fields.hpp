// One description of a struct's fields serves reading, writing and ranges. A struct lists them as
//
//     static void fields(auto& c, auto&& visit) { visit("pulls", c.pulls, 1, 5000); ... }
//
// and an enum names its values by specialising Words.
#pragma once

#include <fmt/format.h>

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "core/base/json.hpp"

namespace jig {

/// One value of an enum: as it stands in files, and as a maker says it inside a sentence.
struct Word {
    std::string_view file;
    std::string_view said;
};

/// Specialise with `static constexpr std::array all` in the order of the enum's values.
template <class E>
struct Words;

template <class E>
std::string_view said(E value) {
    return Words<E>::all[static_cast<std::size_t>(value)].said;
}

template <class E>
std::string_view file_word(E value) {
    return Words<E>::all[static_cast<std::size_t>(value)].file;
}

template <class T>
Json to_json_value(const T& value);
template <class T>
void from_json_value(const JsonPlace& place, T& value);

template <class T>
struct IsVector : std::false_type {};
template <class T>
struct IsVector<std::vector<T>> : std::true_type {};
template <class T>
struct IsArray : std::false_type {};
template <class T, std::size_t N>
struct IsArray<std::array<T, N>> : std::true_type {};

struct FieldWriter {
    Json& out;
    template <class T, class... Range>
    void operator()(const char* key, const T& value, Range...) const {
        out[key] = to_json_value(value);
    }
    /// What is not known is not written.
    template <class T, class... Range>
    void operator()(const char* key, const std::optional<T>& value, Range...) const {
        if (value) out[key] = to_json_value(*value);
    }
};

struct FieldReader {
    const JsonPlace& in;
    template <class T>
    void operator()(const char* key, T& value) const {
        if (in.has(key)) from_json_value(in.at(key), value);
    }
    template <class T>
    void operator()(const char* key, T& value, T low, T high) const {
        in.read(key, value, low, high);
    }
    template <class T>
    void operator()(const char* key, std::optional<T>& value, T low, T high) const {
        if (!in.has(key)) return;
        T read = low;
        in.read(key, read, low, high);
        value = read;
    }
};

template <class T>
Json to_json_value(const T& value) {
    if constexpr (std::is_enum_v<T>) {
        return std::string(file_word(value));
    } else if constexpr (IsVector<T>::value || IsArray<T>::value) {
        Json list = Json::array();
        for (const auto& item : value) list.push_back(to_json_value(item));
        return list;
    } else if constexpr (requires { T::fields(value, FieldWriter{std::declval<Json&>()}); }) {
        Json object = Json::object();
        T::fields(value, FieldWriter{object});
        return object;
    } else {
        return value;
    }
}

template <class T>
void from_json_value(const JsonPlace& place, T& value) {
    if constexpr (std::is_enum_v<T>) {
        const auto text = place.text();
        std::string known;
        for (std::size_t i = 0; i < Words<T>::all.size(); ++i) {
            if (Words<T>::all[i].file == text) {
                value = static_cast<T>(i);
                return;
            }
            known += (i ? ", " : "") + std::string(Words<T>::all[i].file);
        }
        place.fail("\"" + text + "\" is not known here", "use one of: " + known);
    } else if constexpr (IsVector<T>::value) {
        T list(place.size());
        for (std::size_t i = 0; i < list.size(); ++i) from_json_value(place.item(i), list[i]);
        value = std::move(list);
    } else if constexpr (IsArray<T>::value) {
        if (place.size() != value.size())
            place.fail(fmt::format("{} values are expected here", value.size()), "write them all");
        for (std::size_t i = 0; i < value.size(); ++i) from_json_value(place.item(i), value[i]);
    } else if constexpr (std::is_same_v<T, bool>) {
        value = place.flag();
    } else if constexpr (std::is_same_v<T, int>) {
        value = place.whole();
    } else if constexpr (std::is_same_v<T, double>) {
        value = place.number();
    } else if constexpr (std::is_same_v<T, std::string>) {
        value = place.text();
    } else {
        if (!place.raw().is_object()) place.fail("an object is expected here", "write it in { }");
        T::fields(value, FieldReader{place});
    }
}

}  // namespace jig
