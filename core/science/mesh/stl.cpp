#include "core/science/mesh/stl.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <filesystem>
#include <fstream>

namespace jig {
namespace {

constexpr std::size_t kHeader = 84, kRecord = 50;

/// Joins equal corners: an open-addressing table over the bits of the three floats.
class Welder {
  public:
    explicit Welder(std::size_t expected_points) {
        std::size_t size = 64;
        while (size < expected_points * 2) size *= 2;
        slots_.assign(size, kEmpty);
        points_.reserve(expected_points);
    }
    std::uint32_t add(std::array<float, 3> p) {
        for (auto& v : p) v += 0.0f;  // -0 and +0 are one place
        if (points_.size() * 2 > slots_.size()) grow();
        for (auto slot = hash(p);; ++slot) {
            auto& found = slots_[slot & (slots_.size() - 1)];
            if (found == kEmpty) {
                found = static_cast<std::uint32_t>(points_.size());
                points_.push_back(p);
                return found;
            }
            if (points_[found] == p) return found;
        }
    }
    [[nodiscard]] const std::vector<std::array<float, 3>>& points() const { return points_; }

  private:
    static constexpr std::uint32_t kEmpty = 0xffffffffu;
    static std::size_t hash(const std::array<float, 3>& p) {
        std::uint64_t h = 0x9e3779b97f4a7c15ull;
        for (const float v : p) h = (h ^ std::bit_cast<std::uint32_t>(v)) * 0xff51afd7ed558ccdull;
        return static_cast<std::size_t>(h ^ (h >> 32));
    }
    void grow() {
        slots_.assign(slots_.size() * 2, kEmpty);
        for (std::size_t i = 0; i < points_.size(); ++i) {
            auto slot = hash(points_[i]);
            while (slots_[slot & (slots_.size() - 1)] != kEmpty) ++slot;
            slots_[slot & (slots_.size() - 1)] = static_cast<std::uint32_t>(i);
        }
    }
    std::vector<std::uint32_t> slots_;
    std::vector<std::array<float, 3>> points_;
};

TriangleMesh finished(const Welder& welder, std::vector<Triangle> triangles, double unit) {
    TriangleMesh mesh;
    mesh.triangles = std::move(triangles);
    mesh.points.reserve(welder.points().size());
    for (const auto& p : welder.points()) mesh.points.emplace_back(p[0] * unit, p[1] * unit, p[2] * unit);
    return mesh;
}

[[noreturn]] void not_finite(const std::string& where, std::size_t triangle) {
    throw InputError(where, fmt::format("a corner of triangle {} is not a finite number", triangle + 1),
                     "export the shape again, or mend that face in the program it came from");
}

TriangleMesh read_binary(std::string_view bytes, std::size_t count, const std::string& where, double unit,
                         Progress& progress) {
    Welder welder(count / 2 + 16);
    std::vector<Triangle> triangles(count);
    for (std::size_t f = 0; f < count; ++f) {
        if (f % 65536 == 0)
            progress.report(static_cast<double>(f) / static_cast<double>(count), "reading triangles");
        std::array<std::array<float, 3>, 3> corners;
        std::memcpy(&corners, bytes.data() + kHeader + f * kRecord + 12, sizeof corners);
        for (std::size_t k = 0; k < 3; ++k) {
            const auto& c = corners[k];
            if (!std::isfinite(c[0]) || !std::isfinite(c[1]) || !std::isfinite(c[2])) not_finite(where, f);
            triangles[f][k] = welder.add(c);
        }
    }
    return finished(welder, std::move(triangles), unit);
}

bool same_word(std::string_view text, std::string_view small) {
    return text.size() == small.size() &&
           std::equal(text.begin(), text.end(), small.begin(), [](char a, char b) {
               return (a >= 'A' && a <= 'Z' ? static_cast<char>(a - 'A' + 'a') : a) == b;
           });
}

TriangleMesh read_text(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    const char* at = bytes.data();
    const char* const end = at + bytes.size();
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r'; };
    const auto line = [&] { return 1 + std::count(bytes.data(), at, '\n'); };
    const auto bad = [&](const char* what) {
        throw InputError(fmt::format("{} line {}", where, line()), what,
                         "export the shape again as triangles");
    };
    Welder welder(bytes.size() / 500 + 16);
    std::vector<Triangle> triangles;
    Triangle current{};
    std::size_t corners = 0, words = 0;
    bool facet = false, open = false;  // within a facet; within a solid that has not ended
    while (true) {
        while (at < end && blank(*at)) ++at;
        if (at == end) break;
        const char* word = at;
        while (at < end && !blank(*at)) ++at;
        const std::string_view text(word, static_cast<std::size_t>(at - word));
        if ((++words & 0xffff) == 0) {
            progress.report(static_cast<double>(at - bytes.data()) / static_cast<double>(bytes.size()),
                            "reading triangles");
        }
        if (same_word(text, "vertex")) {
            if (!facet) bad("a vertex stands outside a facet");
            std::array<float, 3> p{};
            for (auto& value : p) {
                while (at < end && blank(*at)) ++at;
                if (at < end && *at == '+') ++at;
                double wide = 0;
                const char* const number = at;
                const auto [stop, fault] = std::from_chars(at, end, wide);
                const bool range = fault == std::errc::result_out_of_range;
                if ((fault != std::errc{} && !range) || (stop < end && !blank(*stop)))
                    bad("a vertex needs three numbers");
                at = stop;
                // What is too small for a number is nothing; what is too large is no place.
                if (range && std::string_view(number, static_cast<std::size_t>(stop - number)).find('-', 1) ==
                                 std::string_view::npos)
                    not_finite(where, triangles.size());
                value = range ? 0.0F : static_cast<float>(wide);
            }
            if (!std::isfinite(p[0]) || !std::isfinite(p[1]) || !std::isfinite(p[2]))
                not_finite(where, triangles.size());
            if (corners == 3) bad("a face has more than three corners");
            current[corners++] = welder.add(p);
        } else if (same_word(text, "facet")) {
            if (facet) bad("a facet begins before the last one has ended");
            facet = true;
        } else if (same_word(text, "endfacet")) {
            if (corners != 3) bad("a face has fewer than three corners");
            triangles.push_back(current);
            corners = 0;
            facet = false;
        } else if (same_word(text, "solid") || same_word(text, "endsolid")) {
            open = text.size() == 5;
            // Whatever stands behind it on its line is a name.
            if (facet) bad("a solid begins or ends inside a facet");
            while (at < end && *at != '\n' && *at != '\r') ++at;
        }
    }
    if (facet) throw InputError(where, "the file ends in the middle of a face", "copy or export it again");
    if (open)
        throw InputError(
            where,
            fmt::format("the file ends after {} faces without \"endsolid\", so it may be cut short",
                        triangles.size()),
            "copy or export it again; where it is whole, write \"endsolid\" as its last line");
    return finished(welder, std::move(triangles), unit);
}

std::uint32_t binary_count(std::string_view bytes) {
    std::uint32_t count = 0;
    std::memcpy(&count, bytes.data() + 80, 4);
    return count;
}

/// Text files start with "solid", in capitals too and perhaps behind a mark of byte order, and name a facet
/// (or end) soon; binary headers may start with "solid" too.
bool looks_like_text(std::string_view bytes) {
    bytes = without_mark(bytes);
    const auto first = bytes.find_first_not_of(" \t\r\n");
    if (first == std::string_view::npos || !same_word(bytes.substr(first, 5), "solid")) return false;
    std::string head(bytes.substr(first, 4096));
    if (head.find('\0') != std::string::npos) return false;
    for (auto& c : head) c = c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c;
    return head.find("facet") != std::string::npos || head.find("endsolid") != std::string::npos;
}

bool exact_binary_size(std::string_view bytes) {
    return bytes.size() >= kHeader && bytes.size() == kHeader + kRecord * std::size_t{binary_count(bytes)};
}

}  // namespace

bool looks_like_stl(std::string_view bytes) {
    return exact_binary_size(bytes) || looks_like_text(bytes);
}

TriangleMesh read_stl(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    TriangleMesh mesh;
    if (!exact_binary_size(bytes) && looks_like_text(bytes)) {
        mesh = read_text(without_mark(bytes), where, unit, progress);
    } else {
        if (bytes.size() < kHeader)
            throw InputError(where, "the file is too short for an STL",
                             "choose an STL file with triangles in it");
        const std::size_t said = binary_count(bytes), held = (bytes.size() - kHeader) / kRecord;
        if (said > held) {
            throw InputError(
                where,
                fmt::format("the file says {} triangles and holds {}, so it is cut short or no STL", said,
                            held),
                "copy or export it again");
        }
        mesh = read_binary(bytes, said, where, unit, progress);
    }
    if (mesh.empty())
        throw InputError(where, "the file holds no triangle", "export the shape again as a mesh");
    return mesh;
}

std::string read_file(const std::string& path, std::size_t limit) {
    std::error_code bad;
    if (std::filesystem::is_directory(path, bad)) throw InputError(path, "this is a folder", "name a file");
    std::ifstream in(path, std::ios::binary | std::ios::ate);
    if (!in) throw InputError(path, "the file cannot be opened", "check its name and that you may read it");
    const auto size = static_cast<std::size_t>(in.tellg());
    if (size > limit)
        throw InputError(path, fmt::format("the file is larger than {} MB", limit >> 20), "reduce it first");
    std::string bytes(size, '\0');
    in.seekg(0);
    in.read(bytes.data(), static_cast<std::streamsize>(size));
    if (!in) throw InputError(path, "the file cannot be read to its end", "copy it again");
    return bytes;
}

std::string write_stl_binary(const TriangleMesh& mesh) {
    std::string out(kHeader + kRecord * mesh.triangles.size(), '\0');
    const std::string_view title = "Jig Shell, millimetres";
    std::memcpy(out.data(), title.data(), title.size());
    const auto count = static_cast<std::uint32_t>(mesh.triangles.size());
    std::memcpy(out.data() + 80, &count, 4);
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        std::array<float, 12> record{};
        const Point n = mesh.area_vector2(f).normalized();
        for (int i = 0; i < 3; ++i) {
            record[static_cast<std::size_t>(i)] = static_cast<float>(n[i]);
            for (int k = 0; k < 3; ++k) {
                record[static_cast<std::size_t>(3 + 3 * k + i)] =
                    static_cast<float>(mesh.corner(f, k)[i] * 1000);
            }
        }
        std::memcpy(out.data() + kHeader + f * kRecord, record.data(), sizeof record);
    }
    return out;
}

std::string write_stl_text(const TriangleMesh& mesh, const std::string& name) {
    std::string out = "solid " + name + "\n";
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point n = mesh.area_vector2(f).normalized();
        out += fmt::format("facet normal {:.6g} {:.6g} {:.6g}\nouter loop\n", n.x(), n.y(), n.z());
        for (int k = 0; k < 3; ++k) {
            const Point p = mesh.corner(f, k) * 1000;
            out += fmt::format("vertex {:.9g} {:.9g} {:.9g}\n", p.x(), p.y(), p.z());
        }
        out += "endloop\nendfacet\n";
    }
    return out + "endsolid " + name + "\n";
}

double length_unit(const std::string& name) {
    if (name == "mm") return 1e-3;
    if (name == "cm") return 1e-2;
    if (name == "m") return 1;
    if (name == "in") return 0.0254;
    throw InputError("unit", "\"" + name + "\" is no unit of length here", "use mm, cm, m or in");
}

}  // namespace jig
