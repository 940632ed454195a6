#include "core/science/mesh/outline_file.hpp"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <new>
#include <pugixml.hpp>
#include <stdexcept>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/mesh/cut.hpp"

namespace jig {
namespace {

constexpr int kTurnSteps = 96;  // chords of a whole turn, straying by r·(1 − cos(π/96)), half a thousandth

/// Strokes as they are drawn; ends are joined afterwards.
using Strokes = std::vector<std::vector<Point2>>;

void arc(std::vector<Point2>& into, const Point2& middle, double radius, double from, double turn) {
    const int steps = std::max(1, static_cast<int>(std::ceil(std::abs(turn) / (2 * kPi) * kTurnSteps)));
    for (int i = 0; i <= steps; ++i) {
        const double a = from + turn * i / steps;
        into.emplace_back(middle + radius * Point2(std::cos(a), std::sin(a)));
    }
}

/// A turn anticlockwise from one angle to another, rad, in (0, 2π].
double turn_between(double from, double to) {
    const double turn = std::fmod(to - from, 2 * kPi);
    return turn > 1e-12 ? turn : turn + 2 * kPi;
}

/// The entities of a DXF text, as strokes: pairs of lines, a code and its value. Only what outlines are drawn
/// with is looked at; definitions of blocks are not drawings.
class Drawing {
  public:
    Strokes strokes;
    double unit = 0;  ///< m, 0 where the file names none

    void read(std::string_view bytes) {
        std::size_t at = 0;
        const auto line = [&](std::string_view& out) {
            if (at >= bytes.size()) return false;
            const auto end = std::min(bytes.find('\n', at), bytes.size());
            out = bytes.substr(at, end - at);
            at = end + 1;
            while (!out.empty() && std::isspace(static_cast<unsigned char>(out.back()))) out.remove_suffix(1);
            while (!out.empty() && std::isspace(static_cast<unsigned char>(out.front())))
                out.remove_prefix(1);
            return true;
        };
        std::string_view code_text, value;
        while (line(code_text) && line(value)) {
            int code = -1;
            const auto [end, bad] =
                std::from_chars(code_text.data(), code_text.data() + code_text.size(), code);
            if (bad != std::errc{} || end != code_text.data() + code_text.size()) continue;
            take(code, value);
        }
        finish();
        finish_polyline();
    }

  private:
    struct Corner {
        Point2 at = Point2::Zero();
        double bulge = 0;  ///< tangent of a quarter of the turn to the next corner
    };

    void take(int code, std::string_view value) {
        if (code == 0) {
            finish();
            entity_ = value;
            number_.fill(0);
            corners_.clear();
            if (value == "SECTION" || value == "ENDSEC") section_ = {};
            return;
        }
        if (code == 2 && entity_ == "SECTION") section_ = value;
        if (code == 9) variable_ = value;
        if (code < 10 || code > 79) return;
        double v = 0;
        if (!value.empty() && value.front() == '+') value.remove_prefix(1);
        const auto [end, bad] = std::from_chars(value.data(), value.data() + value.size(), v);
        if (bad != std::errc{} || !std::isfinite(v)) return;
        if (code == 70 && variable_ == "$INSUNITS" && section_ == "HEADER") {
            unit = v == 1 ? 0.0254 : v == 2 ? 0.3048 : v == 4 ? 1e-3 : v == 5 ? 1e-2 : v == 6 ? 1 : 0;
            return;
        }
        if (entity_ == "LWPOLYLINE") {
            if (code == 10) corners_.push_back({{v, 0}, 0});
            if (code == 20 && !corners_.empty()) corners_.back().at.y() = v;
            if (code == 42 && !corners_.empty()) corners_.back().bulge = v;
        }
        number_[static_cast<std::size_t>(code)] = v;
    }

    void finish() {
        const auto n = [&](int code) { return number_[static_cast<std::size_t>(code)]; };
        const Point2 at(n(10), n(20)), to(n(11), n(21));
        if (section_ == "BLOCKS") return;
        if (entity_ == "LINE") {
            strokes.push_back({at, to});
        } else if (entity_ == "CIRCLE" && n(40) > 0) {
            arc(strokes.emplace_back(), at, n(40), 0, 2 * kPi);
        } else if (entity_ == "ARC" && n(40) > 0) {
            arc(strokes.emplace_back(), at, n(40), radians(n(50)),
                turn_between(radians(n(50)), radians(n(51))));
        } else if (entity_ == "ELLIPSE") {
            const Point2 minor = n(40) * Point2(-to.y(), to.x());
            const double turn = turn_between(n(41), n(42));
            auto& stroke = strokes.emplace_back();
            for (int i = 0; i <= kTurnSteps; ++i) {
                const double a = n(41) + turn * i / kTurnSteps;
                stroke.push_back(at + std::cos(a) * to + std::sin(a) * minor);
            }
        } else if (entity_ == "LWPOLYLINE") {
            add(corners_, (static_cast<long>(std::clamp(n(70), 0.0, 1e6)) & 1) != 0);
        } else if (entity_ == "POLYLINE") {
            finish_polyline();
            closed_ = (static_cast<long>(std::clamp(n(70), 0.0, 1e6)) & 1) != 0;
        } else if (entity_ == "VERTEX") {
            polyline_.push_back({at, n(42)});
        } else if (entity_ == "SEQEND") {
            finish_polyline();
        }
        entity_ = {};
    }
    void finish_polyline() {
        add(polyline_, closed_);
        polyline_.clear();
        closed_ = false;
    }
    void add(const std::vector<Corner>& corners, bool closed) {
        const auto n = corners.size();
        if (n < 2) return;
        auto& stroke = strokes.emplace_back();
        stroke.push_back(corners[0].at);
        for (std::size_t i = 0; i + (closed ? 0 : 1) < n; ++i) {
            const auto& [a, bulge] = corners[i];
            const Point2 b = corners[(i + 1) % n].at, way = b - a;
            if (std::abs(bulge) > 1e-9 && way.norm() > 0) {
                const double turn = 4 * std::atan(bulge), radius = way.norm() / (2 * std::sin(turn / 2));
                const Point2 middle =
                    a + way / 2 + Point2(-way.y(), way.x()).normalized() * radius * std::cos(turn / 2);
                std::vector<Point2> round;
                arc(round, middle, std::abs(radius), std::atan2(a.y() - middle.y(), a.x() - middle.x()),
                    turn);
                if (round.size() > 2) stroke.insert(stroke.end(), round.begin() + 1, round.end() - 1);
            }
            stroke.push_back(b);
        }
    }

    std::string_view entity_, section_, variable_;
    std::array<double, 80> number_{};
    std::vector<Corner> corners_, polyline_;
    bool closed_ = false;
};

/// Numbers and letters of SVG's path grammar.
class PathWords {
  public:
    explicit PathWords(std::string_view text) : text_(text) {}
    char letter() {
        skip();
        if (at_ < text_.size() && std::isalpha(static_cast<unsigned char>(text_[at_]))) return text_[at_++];
        return 0;
    }
    bool number(double& value) {
        skip();
        if (at_ < text_.size() && text_[at_] == '+') ++at_;
        const auto [end, bad] = std::from_chars(text_.data() + at_, text_.data() + text_.size(), value);
        if (bad != std::errc{} || !std::isfinite(value)) return false;
        at_ = static_cast<std::size_t>(end - text_.data());
        return true;
    }
    /// The flags of an arc may stand without a space between.
    bool flag(double& value) {
        skip();
        if (at_ >= text_.size() || (text_[at_] != '0' && text_[at_] != '1')) return false;
        value = text_[at_++] - '0';
        return true;
    }

  private:
    void skip() {
        while (at_ < text_.size() &&
               (std::isspace(static_cast<unsigned char>(text_[at_])) || text_[at_] == ','))
            ++at_;
    }
    std::string_view text_;
    std::size_t at_ = 0;
};

/// SVG 1.1 F.6.5: from the ends of an elliptical arc to its middle.
void svg_arc(std::vector<Point2>& into, const Point2& from, double rx, double ry, double tilt, bool large,
             bool sweep, const Point2& to) {
    rx = std::abs(rx);
    ry = std::abs(ry);
    if (rx < 1e-12 || ry < 1e-12 || (from - to).norm() < 1e-12) return into.push_back(to);
    const Eigen::Rotation2Dd turn(radians(tilt));
    const Point2 half = turn.inverse() * ((from - to) / 2);
    const double too_far = half.x() * half.x() / (rx * rx) + half.y() * half.y() / (ry * ry);
    if (too_far > 1) {
        rx *= std::sqrt(too_far);
        ry *= std::sqrt(too_far);
    }
    const double a = rx * rx * half.y() * half.y() + ry * ry * half.x() * half.x();
    const double k = std::sqrt(std::max(0.0, (rx * rx * ry * ry - a) / a)) * (large == sweep ? -1 : 1);
    const Point2 centre(k * rx * half.y() / ry, -k * ry * half.x() / rx);
    const auto angle = [&](const Point2& p) {
        return std::atan2((p.y() - centre.y()) / ry, (p.x() - centre.x()) / rx);
    };
    const double start = angle(half);
    double whole = angle(-half) - start;
    if (sweep && whole < 0) whole += 2 * kPi;
    if (!sweep && whole > 0) whole -= 2 * kPi;
    const int steps = std::max(2, static_cast<int>(std::ceil(std::abs(whole) / (2 * kPi) * kTurnSteps)));
    const Point2 middle = turn * centre + (from + to) / 2;
    for (int i = 1; i <= steps; ++i) {
        const double t = start + whole * i / steps;
        into.push_back(middle + turn * Point2(rx * std::cos(t), ry * std::sin(t)));
    }
}

void svg_path(std::string_view text, Strokes& out) {
    PathWords words(text);
    std::vector<Point2> stroke;
    Point2 at(0, 0), first(0, 0), handle(0, 0);
    char last = 0;
    const auto finish = [&] {
        if (stroke.size() > 1) out.push_back(stroke);
        stroke.clear();
    };
    const auto curve = [&](const Point2& b, const Point2& c, const Point2& d) {
        constexpr int kSteps = 24;
        for (int i = 1; i <= kSteps; ++i) {
            const double t = static_cast<double>(i) / kSteps, s = 1 - t;
            stroke.push_back(s * s * s * at + 3 * s * s * t * b + 3 * s * t * t * c + t * t * t * d);
        }
        handle = c;
        at = d;
    };
    for (char verb = words.letter(); verb != 0;) {
        const bool relative = std::islower(static_cast<unsigned char>(verb)) != 0;
        const char kind = static_cast<char>(std::toupper(static_cast<unsigned char>(verb)));
        if (kind == 'Z') {
            stroke.push_back(first);
            at = first;
            finish();
            last = kind;
            verb = words.letter();
            continue;
        }
        std::array<double, 7> v{};
        const std::size_t need = kind == 'M' || kind == 'L' || kind == 'T' ? 2
                                 : kind == 'H' || kind == 'V'              ? 1
                                 : kind == 'C'                             ? 6
                                 : kind == 'S' || kind == 'Q'              ? 4
                                 : kind == 'A'                             ? 7
                                                                           : 0;
        if (need == 0) return finish();
        bool any = false;
        for (;;) {
            std::size_t got = 0;
            while (got < need &&
                   (kind == 'A' && (got == 3 || got == 4) ? words.flag(v[got]) : words.number(v[got])))
                ++got;
            if (got < need) break;
            any = true;
            const Point2 base = relative ? at : Point2(0, 0);
            const auto point = [&](std::size_t i) { return Point2(base + Point2(v[i], v[i + 1])); };
            if (stroke.empty() && kind != 'M') stroke.push_back(at);
            if (kind == 'M') {
                finish();
                at = first = point(0);
                stroke.push_back(at);
                verb = relative ? 'l' : 'L';
                last = kind;
                break;
            }
            if (kind == 'L') {
                at = point(0);
                stroke.push_back(at);
            } else if (kind == 'H' || kind == 'V') {
                at[kind == 'H' ? 0 : 1] = v[0] + base[kind == 'H' ? 0 : 1];
                stroke.push_back(at);
            } else if (kind == 'C') {
                curve(point(0), point(2), point(4));
            } else if (kind == 'S') {
                curve(last == 'C' || last == 'S' ? Point2(2 * at - handle) : at, point(0), point(2));
            } else if (kind == 'Q' || kind == 'T') {
                const Point2 pull = kind == 'Q'                  ? point(0)
                                    : last == 'Q' || last == 'T' ? Point2(2 * at - handle)
                                                                 : at;
                const Point2 to = point(kind == 'Q' ? 2 : 0), from = at;
                curve(from + 2.0 / 3 * (pull - from), to + 2.0 / 3 * (pull - to), to);
                handle = pull;
            } else {
                const Point2 to = point(5);
                svg_arc(stroke, at, v[0], v[1], v[2], v[3] != 0, v[4] != 0, to);
                at = to;
            }
            last = kind;
        }
        if (kind == 'M' && any) {
            // More pairs after a move are lines; a letter may stand there too.
            if (const char next = words.letter()) verb = next;
            continue;
        }
        verb = words.letter();
    }
    finish();
}

/// The length of an SVG size such as "210mm" in m; 0 where it names no such unit.
double svg_length(std::string_view text) {
    double value = 0;
    const auto [end, bad] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (bad != std::errc{}) return 0;
    const std::string_view sign(end, static_cast<std::size_t>(text.data() + text.size() - end));
    return value * (sign == "mm" ? 1e-3 : sign == "cm" ? 1e-2 : sign == "in" ? 0.0254 : 0);
}

using Flat = Eigen::Affine2d;

Flat svg_transform(std::string_view text) {
    Flat out = Flat::Identity();
    while (true) {
        const auto open = text.find('('), close = text.find(')');
        if (open == std::string_view::npos || close == std::string_view::npos || close < open) return out;
        auto name = text.substr(0, open);
        while (!name.empty() && !std::isalpha(static_cast<unsigned char>(name.front())))
            name.remove_prefix(1);
        while (!name.empty() && !std::isalpha(static_cast<unsigned char>(name.back()))) name.remove_suffix(1);
        PathWords words(text.substr(open + 1, close - open - 1));
        std::array<double, 6> v{};
        std::size_t got = 0;
        while (got < 6 && words.number(v[got])) ++got;
        if (name == "translate") out.translate(Point2(v[0], v[1]));
        if (name == "scale") out.scale(Point2(v[0], got > 1 ? v[1] : v[0]));
        if (name == "rotate")
            out.translate(Point2(v[1], v[2])).rotate(radians(v[0])).translate(Point2(-v[1], -v[2]));
        if (name == "matrix" && got == 6) {
            Flat m;
            m.matrix() << v[0], v[2], v[4], v[1], v[3], v[5], 0, 0, 1;
            out = out * m;
        }
        text.remove_prefix(close + 1);
    }
}

void svg_walk(const pugi::xml_node& node, const Flat& place, Strokes& out, int deep) {
    if (deep > 64) return;
    for (const auto& child : node.children()) {
        const std::string_view name = child.name();
        if (name == "defs" || name == "clipPath" || name == "mask") continue;
        const Flat here = place * svg_transform(child.attribute("transform").as_string());
        Strokes strokes;
        const auto number = [&](const char* key) { return child.attribute(key).as_double(); };
        if (name == "path") svg_path(child.attribute("d").as_string(), strokes);
        if (name == "polygon" || name == "polyline") {
            PathWords words(child.attribute("points").as_string());
            auto& stroke = strokes.emplace_back();
            for (Point2 p; words.number(p.x()) && words.number(p.y());) stroke.push_back(p);
            if (name == "polygon" && !stroke.empty()) stroke.push_back(stroke.front());
        }
        if (name == "rect") {
            const double x = number("x"), y = number("y"), w = number("width"), h = number("height");
            strokes.push_back({{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}, {x, y}});
        }
        if (name == "circle" || name == "ellipse") {
            const double rx = number(name == "circle" ? "r" : "rx"),
                         ry = number(name == "circle" ? "r" : "ry");
            auto& stroke = strokes.emplace_back();
            for (int i = 0; i <= kTurnSteps; ++i)
                stroke.emplace_back(number("cx") + rx * std::cos(2 * kPi * i / kTurnSteps),
                                    number("cy") + ry * std::sin(2 * kPi * i / kTurnSteps));
        }
        for (auto& stroke : strokes) {
            for (auto& p : stroke) p = here * p;
            out.push_back(std::move(stroke));
        }
        svg_walk(child, here, out, deep + 1);
    }
}

Strokes read_svg(std::string_view bytes, const std::string& where, double& unit) {
    pugi::xml_document document;
    if (!document.load_buffer(bytes.data(), bytes.size()))
        throw InputError(where, "the file is cut short or no sound SVG", "export it again");
    const auto root = document.child("svg");
    PathWords box(root.attribute("viewBox").as_string());
    std::array<double, 4> view{};
    std::size_t got = 0;
    while (got < 4 && box.number(view[got])) ++got;
    const double wide = svg_length(root.attribute("width").as_string());
    if (wide > 0 && got == 4 && view[2] > 0) unit = wide / view[2];
    Strokes strokes;
    // SVG's y runs down the page.
    svg_walk(root, Flat(Eigen::Scaling(Point2(1, -1))), strokes, 0);
    return strokes;
}

Strokes read_dxf(std::string_view bytes, double& unit) {
    Drawing drawing;
    drawing.read(bytes);
    if (drawing.unit > 0) unit = drawing.unit;
    return std::move(drawing.strokes);
}

}  // namespace

Loop read_outline(std::string_view bytes, const std::string& where, double unit) {
    const auto head = bytes.substr(0, 4096);
    Strokes strokes;
    // A library that makes room for what a broken file promises gives up in its own way.
    const auto promised = [&](auto&& read) {
        try {
            return read();
        } catch (const std::bad_alloc&) {
        } catch (const std::length_error&) {
        }
        throw InputError(where, "it promises more points than any file could hold", "save the drawing again");
    };
    if (head.find("<svg") != std::string_view::npos)
        strokes = promised([&] { return read_svg(bytes, where, unit); });
    else if (bytes.substr(0, 65536).find("SECTION") != std::string_view::npos &&
             head.find('\0') == std::string_view::npos)
        strokes = promised([&] { return read_dxf(bytes, unit); });
    else
        throw InputError(where, "the file is no drawing that can be read here", "save it as DXF text or SVG");
    double size = 0;
    std::size_t count = 0;
    for (const auto& stroke : strokes) {
        for (const auto& p : stroke) size = std::max(size, p.allFinite() ? p.norm() : 0.0);
        count += stroke.size();
    }
    constexpr std::size_t kMost = 2000000;
    if (count > kMost)
        throw InputError(where, "the drawing has more than two million strokes", "keep the outline only");
    const double reach = std::max(1e-12, 1e-5 * size);
    Loop best;
    const auto take = [&](Loop loop) {
        if (loop.size() >= 3 && std::abs(signed_area(loop)) > std::abs(signed_area(best)))
            best = std::move(loop);
    };
    // A stroke that is closed by itself is an outline; open ones are joined end to end first.
    std::vector<std::pair<Point, Point>> open;
    for (const auto& stroke : strokes) {
        if (stroke.size() < 2 ||
            !std::all_of(stroke.begin(), stroke.end(), [](const Point2& p) { return p.allFinite(); }))
            continue;
        if ((stroke.front() - stroke.back()).norm() <= reach) {
            Loop loop;
            for (std::size_t i = 0; i + 1 < stroke.size(); ++i) loop.emplace_back(unit * stroke[i]);
            take(std::move(loop));
            continue;
        }
        for (std::size_t i = 0; i + 1 < stroke.size(); ++i) {
            const Point a(stroke[i].x(), stroke[i].y(), 0), b(stroke[i + 1].x(), stroke[i + 1].y(), 0);
            if ((a - b).norm() > 0) open.emplace_back(a, b);
        }
    }
    for (const auto& line : chained(open, reach)) {
        if (line.size() < 4 || line.front() != line.back()) continue;
        Loop loop;
        for (std::size_t i = 0; i + 1 < line.size(); ++i) loop.emplace_back(unit * line[i].head<2>());
        take(std::move(loop));
    }
    if (best.size() < 3)
        throw InputError(where, "the drawing holds no closed outline", "close the line, or join its ends");
    if (signed_area(best) < 0) std::reverse(best.begin(), best.end());
    return best;
}

}  // namespace jig
