#include "core/science/mesh/polygon_files.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <limits>

#include "core/science/mesh/stl.hpp"

namespace jig {
namespace {

bool blank(char c) {
    return c == ' ' || c == '\t' || c == '\v' || c == '\f';
}

/// The words of one line, one after the other.
class LineWords {
  public:
    explicit LineWords(std::string_view line) : rest_(line) {}
    std::string_view next() {
        while (!rest_.empty() && blank(rest_.front())) rest_.remove_prefix(1);
        std::size_t end = 0;
        while (end < rest_.size() && !blank(rest_[end])) ++end;
        const auto word = rest_.substr(0, end);
        rest_.remove_prefix(end);
        return word;
    }

  private:
    std::string_view rest_;
};

/// Lines that end in LF, CR LF or CR.
class Lines {
  public:
    explicit Lines(std::string_view bytes) : bytes_(bytes) {}
    bool next(std::string_view& line) {
        if (at_ >= bytes_.size()) return false;
        const auto end = std::min(bytes_.find_first_of("\r\n", at_), bytes_.size());
        line = bytes_.substr(at_, end - at_);
        at_ = end + 1;
        if (end < bytes_.size() && bytes_[end] == '\r' && at_ < bytes_.size() && bytes_[at_] == '\n') ++at_;
        ++number_;
        return true;
    }
    [[nodiscard]] std::size_t number() const { return number_; }
    [[nodiscard]] std::size_t at() const { return at_; }

  private:
    std::string_view bytes_;
    std::size_t at_ = 0, number_ = 0;
};

/// A whole word as a number; what is too small for a double is nothing, what is too large is not finite.
bool number_of(std::string_view word, double& out) {
    if (!word.empty() && word.front() == '+') word.remove_prefix(1);
    const auto* end = word.data() + word.size();
    const auto [stop, bad] = std::from_chars(word.data(), end, out);
    if (bad == std::errc::result_out_of_range) {
        const auto power = word.find_first_of("eE");
        const bool small = power != std::string_view::npos && word.substr(power + 1, 1) == "-";
        out = small ? 0 : std::numeric_limits<double>::infinity();
        return stop == end;
    }
    return bad == std::errc{} && stop == end;
}

bool whole_of(std::string_view word, std::int64_t& out) {
    if (!word.empty() && word.front() == '+') word.remove_prefix(1);
    const auto [stop, bad] = std::from_chars(word.data(), word.data() + word.size(), out);
    return bad == std::errc{} && stop == word.data() + word.size();
}

[[noreturn]] void bad_line(const std::string& where, std::size_t line, const std::string& what) {
    throw InputError(fmt::format("{} line {}", where, line), what,
                     "mend that line, or copy or export the file again");
}

/// Collects points and polygons, and makes triangles of them.
class Soup {
  public:
    Soup(const std::string& where, double unit) : where_(where), unit_(unit) {}
    void point(const Point& p) {
        if (!p.allFinite())
            throw InputError(where_, fmt::format("point {} is not a finite number", mesh_.points.size() + 1),
                             "export the shape again, or mend that point in the program it came from");
        mesh_.points.push_back(p * unit_);
    }
    void corner(std::int64_t index) {
        if (index < 0 || index >= std::int64_t{kNoPoint})
            throw InputError(where_, fmt::format("face {} names a point that is not there", faces() + 1),
                             "copy or export the file again");
        corners_.push_back(static_cast<std::uint32_t>(index));
    }
    void close_face() { ends_.push_back(corners_.size()); }
    [[nodiscard]] std::size_t points() const { return mesh_.points.size(); }
    [[nodiscard]] std::size_t faces() const { return ends_.size(); }
    TriangleMesh finished(Progress& progress) {
        std::size_t begin = 0;
        std::vector<std::uint32_t> polygon;
        for (std::size_t f = 0; f < ends_.size(); ++f) {
            if ((f & 0xffffU) == 0) progress.check();
            polygon.assign(corners_.begin() + static_cast<std::ptrdiff_t>(begin),
                           corners_.begin() + static_cast<std::ptrdiff_t>(ends_[f]));
            for (const auto i : polygon) {
                if (i >= mesh_.points.size())
                    throw InputError(where_, fmt::format("face {} names a point that is not there", f + 1),
                                     "copy or export the file again");
            }
            cut_into_triangles(mesh_.points, polygon, mesh_.triangles);
            begin = ends_[f];
        }
        if (mesh_.empty())
            throw InputError(where_, "the file holds no face",
                             "export the shape as a mesh of faces, not of points");
        return std::move(mesh_);
    }

  private:
    static constexpr std::uint32_t kNoPoint = 0xffffffffu;
    const std::string& where_;
    double unit_;
    TriangleMesh mesh_;
    std::vector<std::uint32_t> corners_;
    std::vector<std::size_t> ends_;
};

void tell(Progress& progress, std::size_t at, std::size_t of) {
    progress.report(static_cast<double>(at) / static_cast<double>(std::max<std::size_t>(1, of)),
                    "reading the mesh");
}

enum class PlyKind { int8, uint8, int16, uint16, int32, uint32, float32, float64 };

struct PlyProperty {
    std::string_view name;
    bool list = false;
    PlyKind count = PlyKind::uint8, value = PlyKind::float32;
};
struct PlyElement {
    std::string_view name;
    std::uint64_t count = 0;
    std::vector<PlyProperty> properties;
};

bool ply_kind(std::string_view word, PlyKind& out) {
    static constexpr std::array<std::array<std::string_view, 2>, 8> names{{{"char", "int8"},
                                                                           {"uchar", "uint8"},
                                                                           {"short", "int16"},
                                                                           {"ushort", "uint16"},
                                                                           {"int", "int32"},
                                                                           {"uint", "uint32"},
                                                                           {"float", "float32"},
                                                                           {"double", "float64"}}};
    for (std::size_t i = 0; i < names.size(); ++i) {
        if (word != names[i][0] && word != names[i][1]) continue;
        out = static_cast<PlyKind>(i);
        return true;
    }
    return false;
}

std::size_t size_of(PlyKind kind) {
    static constexpr std::array<std::size_t, 8> sizes{1, 1, 2, 2, 4, 4, 4, 8};
    return sizes[static_cast<std::size_t>(kind)];
}

/// Values one after the other, from text or from bytes of either order.
class PlyValues {
  public:
    enum class Form { text, little, big };
    PlyValues(std::string_view body, Form form, const std::string& where)
        : body_(body), form_(form), where_(where) {}
    double next(PlyKind kind) {
        if (form_ == Form::text) {
            const auto space = [](char c) { return blank(c) || c == '\r' || c == '\n'; };
            while (at_ < body_.size() && space(body_[at_])) ++at_;
            const auto begin = at_;
            while (at_ < body_.size() && !space(body_[at_])) ++at_;
            if (begin == at_) ended();
            double out = 0;
            if (!number_of(body_.substr(begin, at_ - begin), out))
                throw InputError(where_,
                                 fmt::format("\"{}\" is no number",
                                             body_.substr(begin, std::min<std::size_t>(at_ - begin, 40))),
                                 "copy or export the file again");
            return out;
        }
        const auto size = size_of(kind);
        if (body_.size() - at_ < size) ended();
        std::array<char, 8> raw{};
        std::memcpy(raw.data(), body_.data() + at_, size);
        at_ += size;
        if (form_ == Form::big) std::reverse(raw.begin(), raw.begin() + static_cast<std::ptrdiff_t>(size));
        const auto as = [&](auto value) {
            std::memcpy(&value, raw.data(), sizeof value);
            return static_cast<double>(value);
        };
        switch (kind) {
            case PlyKind::int8:
                return as(std::int8_t{});
            case PlyKind::uint8:
                return as(std::uint8_t{});
            case PlyKind::int16:
                return as(std::int16_t{});
            case PlyKind::uint16:
                return as(std::uint16_t{});
            case PlyKind::int32:
                return as(std::int32_t{});
            case PlyKind::uint32:
                return as(std::uint32_t{});
            case PlyKind::float32:
                return as(float{});
            case PlyKind::float64:
                return as(double{});
        }
        return 0;
    }
    /// A list's length: a whole number that the rest of the file can hold.
    std::size_t length(PlyKind kind, PlyKind value) {
        const double n = next(kind);
        const std::size_t least = form_ == Form::text ? 1 : size_of(value);
        if (!(n >= 0) || n != std::floor(n) ||
            n * static_cast<double>(least) > static_cast<double>(body_.size() - at_))
            ended();
        return static_cast<std::size_t>(n);
    }
    [[nodiscard]] std::size_t at() const { return at_; }

  private:
    [[noreturn]] void ended() const {
        throw InputError(where_, "the file is cut short: its header promises more than it holds",
                         "copy or export it again");
    }
    std::string_view body_;
    Form form_;
    const std::string& where_;
    std::size_t at_ = 0;
};

struct PlyHeader {
    PlyValues::Form form = PlyValues::Form::text;
    std::vector<PlyElement> elements;
    std::size_t body = 0;  ///< where the values begin
};

PlyHeader ply_header(std::string_view bytes, const std::string& where) {
    PlyHeader out;
    Lines lines(bytes);
    std::string_view line;
    lines.next(line);  // "ply"
    bool formed = false;
    while (lines.next(line)) {
        LineWords words(line);
        const auto word = words.next();
        if (word.empty() || word == "comment" || word == "obj_info") continue;
        if (word == "end_header") {
            if (!formed) bad_line(where, lines.number(), "the header names no format before its end");
            out.body = lines.at();
            return out;
        }
        if (word == "format") {
            const auto form = words.next();
            if (form == "ascii")
                out.form = PlyValues::Form::text;
            else if (form == "binary_little_endian")
                out.form = PlyValues::Form::little;
            else if (form == "binary_big_endian")
                out.form = PlyValues::Form::big;
            else
                bad_line(where, lines.number(),
                         fmt::format("the format \"{}\" is not known", form.substr(0, 40)));
            formed = true;
        } else if (word == "element") {
            PlyElement element;
            element.name = words.next();
            std::int64_t count = -1;
            if (!whole_of(words.next(), count) || count < 0 ||
                static_cast<std::uint64_t>(count) > bytes.size())
                throw InputError(where,
                                 fmt::format("its header promises \"{}\" and the file is {} bytes long",
                                             line.substr(0, 40), bytes.size()),
                                 "copy or export it again");
            element.count = static_cast<std::uint64_t>(count);
            out.elements.push_back(std::move(element));
        } else if (word == "property") {
            if (out.elements.empty()) bad_line(where, lines.number(), "a property stands before any element");
            PlyProperty property;
            auto kind = words.next();
            if (kind == "list") {
                property.list = true;
                if (!ply_kind(words.next(), property.count))
                    bad_line(where, lines.number(), "the type of a list's length is not known");
                kind = words.next();
            }
            if (!ply_kind(kind, property.value))
                bad_line(where, lines.number(),
                         fmt::format("the type \"{}\" is not known", kind.substr(0, 40)));
            property.name = words.next();
            out.elements.back().properties.push_back(property);
        } else {
            bad_line(where, lines.number(), fmt::format("\"{}\" is no word of a header", word.substr(0, 40)));
        }
    }
    throw InputError(where, "the header has no end", "copy or export the file again");
}

}  // namespace

TriangleMesh read_obj(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    bytes = without_mark(bytes);
    Soup soup(where, unit);
    Lines lines(bytes);
    std::string_view line;
    std::string joined;
    for (std::size_t count = 0; lines.next(line); ++count) {
        if ((count & 0x3fffU) == 0) tell(progress, lines.at(), bytes.size());
        const auto first = lines.number();
        // A line that ends in a backslash goes on in the next.
        if (!line.empty() && line.back() == '\\') {
            joined.clear();
            while (!line.empty() && line.back() == '\\') {
                joined.append(line.substr(0, line.size() - 1)).push_back(' ');
                if (!lines.next(line)) line = {};
            }
            line = joined.append(line);
        }
        line = line.substr(0, line.find('#'));
        LineWords words(line);
        const auto word = words.next();
        if (word == "v") {
            Point p;
            for (int i = 0; i < 3; ++i) {
                if (!number_of(words.next(), p[i])) bad_line(where, first, "a point needs three numbers");
            }
            soup.point(p);
        } else if (word == "f" || word == "fo") {
            std::size_t corners = 0;
            for (auto corner = words.next(); !corner.empty(); corner = words.next(), ++corners) {
                std::int64_t index = 0;
                if (!whole_of(corner.substr(0, corner.find('/')), index) || index == 0)
                    bad_line(where, first,
                             fmt::format("\"{}\" is no corner of a face", corner.substr(0, 40)));
                // From the end of what has been read where it is negative.
                soup.corner(index > 0 ? index - 1 : static_cast<std::int64_t>(soup.points()) + index);
            }
            if (corners < 3) bad_line(where, first, "a face has fewer than three corners");
            soup.close_face();
        }
        // Everything else (textures, normals, lines, points, groups, materials) makes no surface.
    }
    return soup.finished(progress);
}

TriangleMesh read_ply(std::string_view bytes, const std::string& where, double unit, Progress& progress) {
    bytes = without_mark(bytes);
    const auto header = ply_header(bytes, where);
    PlyValues values(bytes.substr(std::min(header.body, bytes.size())), header.form, where);
    const auto size = bytes.size() - std::min(header.body, bytes.size());
    Soup soup(where, unit);
    for (const auto& element : header.elements) {
        const bool vertex = element.name == "vertex", face = element.name == "face";
        std::array<bool, 3> has{};
        for (const auto& p : element.properties) {
            if (vertex && !p.list && p.name.size() == 1 && p.name >= "x" && p.name <= "z")
                has[static_cast<std::size_t>(p.name[0] - 'x')] = true;
        }
        if (vertex && element.count > 0 && !(has[0] && has[1] && has[2]))
            throw InputError(where, "its points have no x, y and z", "copy or export the file again");
        if (element.properties.empty()) continue;
        for (std::uint64_t n = 0; n < element.count; ++n) {
            if ((n & 0x3fffU) == 0) tell(progress, values.at(), size);
            Point at = Point::Zero();
            for (const auto& p : element.properties) {
                if (!p.list) {
                    const double v = values.next(p.value);
                    if (vertex && p.name.size() == 1 && p.name >= "x" && p.name <= "z")
                        at[p.name[0] - 'x'] = v;
                    continue;
                }
                const bool corners = face && (p.name == "vertex_indices" || p.name == "vertex_index");
                const auto length = values.length(p.count, p.value);
                for (std::size_t i = 0; i < length; ++i) {
                    const double v = values.next(p.value);
                    if (!corners) continue;
                    // What is no whole number in range is no point's number either.
                    soup.corner(v >= 0 && v < 4e9 && v == std::floor(v) ? static_cast<std::int64_t>(v) : -1);
                }
                if (corners) soup.close_face();
            }
            if (vertex) soup.point(at);
        }
    }
    return soup.finished(progress);
}

void cut_into_triangles(const std::vector<Point>& points, const std::vector<std::uint32_t>& polygon,
                        std::vector<Triangle>& out) {
    if (polygon.size() < 3) return;
    if (polygon.size() == 3) {
        out.push_back({polygon[0], polygon[1], polygon[2]});
        return;
    }
    Point normal = Point::Zero();
    for (std::size_t i = 0; i < polygon.size(); ++i)
        normal += points[polygon[i]].cross(points[polygon[(i + 1) % polygon.size()]]);
    const auto frame = frame_across(normal.norm() > 0 ? normal : Point::UnitZ());
    std::vector<std::uint32_t> left = polygon;
    const auto flat = [&](std::uint32_t i) { return frame.flat(points[i]); };
    const auto turn = [](const Point2& a, const Point2& b, const Point2& c) {
        return (b - a).x() * (c - a).y() - (b - a).y() * (c - a).x();
    };
    // Past this the search for ears would be felt; a fan keeps hostile files from hanging the program.
    constexpr std::size_t kLongest = 2000;
    while (left.size() > 3) {
        const auto n = left.size();
        std::size_t ear = 0;
        for (std::size_t i = 0; i < n && n < kLongest; ++i) {
            const auto a = flat(left[(i + n - 1) % n]), b = flat(left[i]), c = flat(left[(i + 1) % n]);
            if (turn(a, b, c) <= 0) continue;
            const bool clear = std::none_of(left.begin(), left.end(), [&](std::uint32_t k) {
                if (k == left[(i + n - 1) % n] || k == left[i] || k == left[(i + 1) % n]) return false;
                const auto p = flat(k);
                return turn(a, b, p) >= 0 && turn(b, c, p) >= 0 && turn(c, a, p) >= 0;
            });
            if (clear) {
                ear = i;
                break;
            }
        }
        out.push_back({left[(ear + n - 1) % n], left[ear], left[(ear + 1) % n]});
        left.erase(left.begin() + static_cast<std::ptrdiff_t>(ear));
    }
    out.push_back({left[0], left[1], left[2]});
}

}  // namespace jig
