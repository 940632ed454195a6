#include "core/stages/shape/starter_meshes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/base/units.hpp"
#include "core/science/mesh/triangulate.hpp"
#include "core/stages/shape/facets.hpp"

namespace jig::shape {
namespace {

std::uint32_t index(std::size_t i) {
    return static_cast<std::uint32_t>(i);
}

/// Joins two rows of equally many points by quads whose normals look outwards when the rows run anticlockwise
/// seen from the first row's back. `closed` joins the last point to the first.
void join_rows(TriangleMesh& mesh, std::size_t a, std::size_t b, std::size_t count, bool closed) {
    for (std::size_t i = 0; i + (closed ? 0 : 1) < count; ++i) {
        const auto j = (i + 1) % count;
        mesh.triangles.push_back({index(a + i), index(a + j), index(b + j)});
        mesh.triangles.push_back({index(a + i), index(b + j), index(b + i)});
    }
}

/// Closes a row of points by a flat fill seen from outside along `out`; new points go into the mesh.
void close_end(TriangleMesh& mesh, std::size_t first, std::size_t count, const Point& out, double facet) {
    const auto frame = frame_across(out);
    Loop loop;
    for (std::size_t i = 0; i < count; ++i) loop.push_back(frame.flat(mesh.points[first + i]));
    const double height = frame.w.dot(mesh.points[first]);
    const bool turned = signed_area(loop) < 0;
    if (turned) std::reverse(loop.begin(), loop.end());
    const auto flat = filled(loop, facet);
    const auto base = mesh.points.size();
    for (std::size_t i = count; i < flat.points.size(); ++i)
        mesh.points.push_back(frame.lift(flat.points[i], height));
    for (auto t : flat.triangles) {
        for (auto& i : t) {
            i = i < count ? index(first + (turned ? count - 1 - i : i)) : index(base + i - count);
        }
        mesh.triangles.push_back(t);
    }
}

/// Unit superellipse at an angle, by its own parameter so that corners get their share of points.
Point2 superellipse(double angle, double fullness) {
    const double c = std::cos(angle), s = std::sin(angle), p = 2 / fullness;
    return {std::copysign(std::pow(std::abs(c), p), c), std::copysign(std::pow(std::abs(s), p), s)};
}

std::size_t steps(double length, double facet, std::size_t least, std::size_t most) {
    return std::clamp<std::size_t>(static_cast<std::size_t>(std::ceil(length / facet)), least, most);
}

/// Points on a polyline at even distances.
Loop evenly(const Loop& line, std::size_t count) {
    std::vector<double> along{0};
    for (std::size_t i = 1; i < line.size(); ++i)
        along.push_back(along.back() + (line[i] - line[i - 1]).norm());
    Loop out;
    std::size_t k = 0;
    for (std::size_t i = 0; i < count; ++i) {
        const double s = along.back() * static_cast<double>(i) / static_cast<double>(count - 1);
        while (k + 2 < along.size() && along[k + 1] < s) ++k;
        const double t = std::clamp((s - along[k]) / std::max(1e-15, along[k + 1] - along[k]), 0.0, 1.0);
        out.push_back(line[k] + t * (line[k + 1] - line[k]));
    }
    return out;
}

/// A measured line as it goes into the outline: whole, from +across to -across.
Loop measured(const Station& s) {
    Loop line;
    for (const auto& p : s.points) line.emplace_back(p[0], p[1]);
    if (line.size() < 3)
        throw InputError("stations",
                         "the section at " + quantity(Kind::length, s.at) + " has fewer than three points",
                         "paste the whole line, or take its points away");
    double low = line.front().x(), high = low;
    for (const auto& p : line) {
        low = std::min(low, p.x());
        high = std::max(high, p.x());
    }
    const double size = std::max(std::abs(low), std::abs(high)), near = 0.01 * size;
    if (low > -near || high < near) {
        // One half, from the middle line out or from outside in: the other is its mirror image.
        if (std::abs(line.front().x()) > std::abs(line.back().x())) std::reverse(line.begin(), line.end());
        Loop other(line.rbegin(), line.rend());
        for (auto& p : other) p.x() = -p.x();
        line.erase(line.begin());
        other.insert(other.end(), line.begin(), line.end());
        line = std::move(other);
    }
    if (line.front().x() < line.back().x()) std::reverse(line.begin(), line.end());
    return line;
}

}  // namespace

Loop station_outline(const Station& s, std::size_t count) {
    Loop line;
    if (s.points.empty()) {
        constexpr int kFine = 720;
        for (int i = 0; i <= kFine; ++i) {
            const auto q = superellipse(kPi * i / kFine, s.fullness);
            line.emplace_back(q.x() * s.width / 2, q.y() * s.height);
        }
    } else {
        line = measured(s);
        const Point2 low = low_corner({line}), size = high_corner({line}) - low;
        if (!(size.minCoeff() > 1e-4))
            throw InputError("stations",
                             "the section at " + quantity(Kind::length, s.at) + " has no width or no height",
                             "look at its points: across, then above the bench");
        for (auto& p : line) p = {p.x() * s.width / size.x(), (p.y() - low.y()) * s.height / size.y()};
    }
    return evenly(line, count);
}

void size_by_points(Station& s) {
    if (s.points.size() < 3) return;
    const auto line = measured(s);
    const Point2 low = low_corner({line}), size = high_corner({line}) - low;
    s.width = size.x();
    s.height = size.y();
    s.lift = low.y();
}

FairedStations fair(const Stations& stations) {
    auto list = stations.stations;
    if (list.size() < 2) throw InputError("stations", "a shape needs two stations at least", "add one");
    std::stable_sort(list.begin(), list.end(),
                     [](const Station& a, const Station& b) { return a.at < b.at; });
    std::vector<double> at, width, height, fullness, lift;
    for (std::size_t i = 0; i < list.size(); ++i) {
        const auto& s = list[i];
        if (i > 0 && s.at - list[i - 1].at < 1e-4)
            throw InputError("stations", "two stations stand at " + quantity(Kind::length, s.at),
                             "move one of them");
        if (!(s.width > 1e-4) || !(s.height > 1e-4))
            throw InputError("stations", "the station at " + quantity(Kind::length, s.at) + " has no size",
                             "give it a width and a height");
        at.push_back(s.at);
        width.push_back(s.width);
        height.push_back(s.height);
        fullness.push_back(s.fullness);
        lift.push_back(s.lift);
    }
    // Typed stiffness runs from 0 to 1; its fourth power spreads the useful range over the slider.
    const double k = std::pow(stations.stiffness, 4);
    FairedStations out{FairCurve(at, width, k),
                       FairCurve(at, height, k),
                       FairCurve(at, fullness, k),
                       FairCurve(at, lift, k),
                       at.front(),
                       at.back(),
                       {}};
    if (std::any_of(list.begin(), list.end(), [](const Station& s) { return !s.points.empty(); })) {
        // Fairing is linear in what it goes through: faired unit steps are the shares.
        for (std::size_t i = 0; i < list.size(); ++i) {
            std::vector<double> unit(list.size(), 0);
            unit[i] = 1;
            out.shares.emplace_back(at, unit, k);
        }
    }
    return out;
}

double stray(const Stations& stations, const FairedStations& faired) {
    double worst = 0;
    for (const auto& s : stations.stations) {
        worst =
            std::max({worst, std::abs(faired.width.at(s.at) - s.width),
                      std::abs(faired.height.at(s.at) - s.height), std::abs(faired.lift.at(s.at) - s.lift)});
    }
    return worst;
}

TriangleMesh stations_mesh(const Stations& stations, Progress& progress) {
    const auto line = fair(stations);
    double girth = 0;
    for (const auto& s : stations.stations) girth = std::max(girth, s.width + 2 * s.height);
    // Even, so that a whole body has as many points above as below.
    const auto around = steps((stations.whole ? 2 : 1) * girth / 2, stations.facet, 6, 750) * 2;
    const auto rows = steps(line.to - line.from, stations.facet, 4, 3000) + 1;
    const auto count = stations.whole ? around : around + 1;
    check_facets(2.0 * static_cast<double>(around * rows), stations.facet);
    TriangleMesh mesh;
    // Measured sections are shared out point by point, each outline made 1 wide and 1 high first.
    std::vector<Loop> outlines;
    if (!line.shares.empty()) {
        auto list = stations.stations;
        std::stable_sort(list.begin(), list.end(),
                         [](const Station& a, const Station& b) { return a.at < b.at; });
        const auto upper = stations.whole ? around / 2 + 1 : count;
        for (const auto& s : list) {
            auto& outline = outlines.emplace_back(station_outline(s, upper));
            for (auto& p : outline) p = {p.x() / s.width, p.y() / s.height};
        }
    }
    const auto blended = [&](std::size_t i, double x) {
        // The lower half of a whole body is its upper one's mirror image.
        const auto upper = outlines.front().size();
        const bool below = i >= upper;
        const auto k = below ? around - i : i;
        Point2 sum = Point2::Zero();
        for (std::size_t s = 0; s < outlines.size(); ++s) sum += line.shares[s].at(x) * outlines[s][k];
        return Point2(2 * sum.x(), below ? -sum.y() : sum.y());
    };
    for (std::size_t r = 0; r < rows; ++r) {
        if (r % 64 == 0)
            progress.report(0.8 * static_cast<double>(r) / static_cast<double>(rows), "drawing the stations");
        const double x =
            line.from + (line.to - line.from) * static_cast<double>(r) / static_cast<double>(rows - 1);
        const double width = line.width.at(x), height = line.height.at(x), lift = line.lift.at(x);
        if (!(width > 0) || !(height > 0))
            throw InputError("stations", "the faired line shrinks to nothing at " + quantity(Kind::length, x),
                             "make the stiffness smaller, or move that station");
        const double fullness = std::clamp(line.fullness.at(x), 1.0, 12.0);
        for (std::size_t i = 0; i < count; ++i) {
            const double a =
                (stations.whole ? 2 : 1) * kPi * static_cast<double>(i) / static_cast<double>(around);
            const auto q = outlines.empty() ? superellipse(a, fullness) : blended(i, x);
            mesh.points.emplace_back(x, q.x() * width / 2, lift + q.y() * height);
        }
    }
    for (std::size_t r = 0; r + 1 < rows; ++r)
        join_rows(mesh, r * count, (r + 1) * count, count, stations.whole);
    progress.report(0.9, "closing the ends");
    close_end(mesh, 0, count, -Point::UnitX(), stations.facet);
    close_end(mesh, (rows - 1) * count, count, Point::UnitX(), stations.facet);
    return mesh;
}

Loop foil_section(const Foil& foil, double edge, std::size_t points) {
    Loop line;
    if (foil.section == FoilSection::points) {
        if (foil.points.size() < 5)
            throw InputError("foil", "its section has fewer than five points",
                             "paste the coordinates, from the trailing edge over the top and back below");
        for (const auto& p : foil.points) line.emplace_back(p[0], p[1]);
        // A closed list would give the trailing edge twice.
        if ((line.front() - line.back()).norm() < 1e-9) line.pop_back();
        if (std::abs(signed_area(line)) < 1e-6)
            throw InputError("foil", "its section has no area", "order the points round the section");
        if (signed_area(line) < 0) std::reverse(line.begin(), line.end());
        line.push_back(line.front());
        line = evenly(line, points + 1);
        line.pop_back();
        return line;
    }
    // Half a circle of stations, closer at nose and tail, over the top from the tail and back below.
    const auto half = points / 2;
    const auto thick = [&](double x) {
        const double shape = 5 * foil.thickness *
                             (0.2969 * std::sqrt(x) - 0.1260 * x - 0.3516 * x * x + 0.2843 * x * x * x -
                              0.1036 * x * x * x * x);
        return std::max(shape, 0.0) + edge / 2 * x;
    };
    const double m = foil.camber, p = foil.camber_at;
    const auto middle = [&](double x) {
        return x < p ? m / (p * p) * (2 * p * x - x * x)
                     : m / ((1 - p) * (1 - p)) * (1 - 2 * p + 2 * p * x - x * x);
    };
    const auto slope = [&](double x) {
        return x < p ? 2 * m / (p * p) * (p - x) : 2 * m / ((1 - p) * (1 - p)) * (p - x);
    };
    for (std::size_t i = 0; i <= half; ++i) {
        const double x = (1 + std::cos(kPi * static_cast<double>(i) / static_cast<double>(half))) / 2,
                     t = thick(x), a = std::atan(slope(x));
        line.emplace_back(x - t * std::sin(a), middle(x) + t * std::cos(a));
    }
    for (std::size_t i = half - 1; i + 1 > 0; --i) {
        const double x = (1 + std::cos(kPi * static_cast<double>(i) / static_cast<double>(half))) / 2,
                     t = thick(x), a = std::atan(slope(x));
        if (i == 0 && !(edge > 0)) break;
        line.emplace_back(x + t * std::sin(a), middle(x) - t * std::cos(a));
    }
    return line;
}

TriangleMesh foil_mesh(const Foil& foil, Progress& progress) {
    const auto around = 2 * (steps(foil.chord, foil.facet, 12, 600)) + 2;
    const auto rows = steps(foil.span, 2 * foil.facet, 2, 2000) + 1;
    check_facets(2.0 * static_cast<double>(around * rows), foil.facet);
    TriangleMesh mesh;
    std::size_t count = 0;
    for (std::size_t r = 0; r < rows; ++r) {
        if (r % 64 == 0)
            progress.report(0.8 * static_cast<double>(r) / static_cast<double>(rows), "drawing the foil");
        const double s = static_cast<double>(r) / static_cast<double>(rows - 1);
        const double chord = foil.chord + s * (foil.tip_chord - foil.chord), twist = s * foil.twist;
        const auto section = foil_section(foil, foil.edge / chord, around);
        count = section.size();
        // Turned about the quarter chord, which sweeps along a straight line.
        const double quarter = foil.chord / 4 + s * foil.span * std::tan(foil.sweep);
        for (const auto& p : section) {
            const double x = (p.x() - 0.25) * chord, z = p.y() * chord;
            mesh.points.emplace_back(quarter + x * std::cos(twist) + z * std::sin(twist), s * foil.span,
                                     -x * std::sin(twist) + z * std::cos(twist));
        }
    }
    // Seen from the tip (+y) a section with x to the right and z up runs clockwise: rows join the other way.
    for (std::size_t r = 0; r + 1 < rows; ++r) join_rows(mesh, (r + 1) * count, r * count, count, true);
    if (foil.caps) {
        progress.report(0.9, "closing root and tip");
        close_end(mesh, 0, count, -Point::UnitY(), foil.facet);
        close_end(mesh, (rows - 1) * count, count, Point::UnitY(), foil.facet);
    }
    return mesh;
}

std::vector<Point2> turned_profile(const Turned& turned) {
    if (turned.profile.size() < 2)
        throw InputError("profile", "it has fewer than two points", "give radius and height of each");
    std::vector<double> along{0}, radius, height;
    for (std::size_t i = 0; i < turned.profile.size(); ++i) {
        const auto& p = turned.profile[i];
        if (!(p[0] >= 0) || !std::isfinite(p[1]) || p[0] > 100 || std::abs(p[1]) > 100)
            throw InputError("profile", fmt::format("point {} lies beyond the axis or beyond 100 m", i + 1),
                             "radii run from 0 outwards");
        if (i > 0) {
            const auto& q = turned.profile[i - 1];
            const double step = std::hypot(p[0] - q[0], p[1] - q[1]);
            if (step < 1e-6)
                throw InputError("profile", "two neighbouring points fall together", "take one of them away");
            along.push_back(along.back() + step);
        }
        radius.push_back(p[0]);
        height.push_back(p[1]);
    }
    std::vector<Point2> out;
    if (!turned.smooth) {
        for (std::size_t i = 0; i < radius.size(); ++i) out.emplace_back(radius[i], height[i]);
        return out;
    }
    const FairCurve r(along, radius, 0), z(along, height, 0);
    const auto count = steps(along.back(), turned.facet, 4, 4000);
    for (std::size_t i = 0; i <= count; ++i) {
        const double s = along.back() * static_cast<double>(i) / static_cast<double>(count);
        out.emplace_back(std::max(0.0, r.at(s)), z.at(s));
    }
    // Ends stay where they were typed, on the axis above all.
    out.front() = {radius.front(), height.front()};
    out.back() = {radius.back(), height.back()};
    return out;
}

TriangleMesh turned_mesh(const Turned& turned, Progress& progress) {
    const auto profile = turned_profile(turned);
    progress.report(0.2, "turning the profile");
    double widest = 0;
    for (const auto& p : profile) widest = std::max(widest, p.x());
    if (widest < 1e-4) throw InputError("profile", "it lies on the axis", "give it a radius somewhere");
    const auto around = steps(2 * kPi * widest, turned.facet, 24, 3000);
    check_facets(2.0 * static_cast<double>(around * profile.size()), turned.facet);
    TriangleMesh mesh;
    constexpr double kAxis = 1e-7;
    // Which way the profile runs decides which side is outside: what lies between it and the axis is inside.
    double moment = 0;
    for (std::size_t i = 0; i + 1 < profile.size(); ++i)
        moment += (profile[i].x() + profile[i + 1].x()) / 2 * (profile[i + 1].y() - profile[i].y());
    std::vector<std::pair<std::size_t, bool>> rings;  // first point, whether it is a single point on the axis
    for (const auto& p : profile) {
        const bool point = p.x() < kAxis;
        rings.emplace_back(mesh.points.size(), point);
        for (std::size_t i = 0; i < (point ? 1 : around); ++i) {
            const double a = 2 * kPi * static_cast<double>(i) / static_cast<double>(around);
            mesh.points.emplace_back(point ? 0 : p.x() * std::cos(a), point ? 0 : p.x() * std::sin(a), p.y());
        }
    }
    for (std::size_t k = 0; k + 1 < rings.size(); ++k) {
        progress.check();
        const auto [a, a_point] = rings[k];
        const auto [b, b_point] = rings[k + 1];
        if (a_point && b_point) continue;
        if (!a_point && !b_point) {
            join_rows(mesh, a, b, around, true);
            continue;
        }
        for (std::size_t i = 0; i < around; ++i) {
            const auto j = (i + 1) % around;
            if (b_point)
                mesh.triangles.push_back({index(a + i), index(a + j), index(b)});
            else
                mesh.triangles.push_back({index(a), index(b + j), index(b + i)});
        }
    }
    if (moment < 0) {
        for (auto& t : mesh.triangles) std::swap(t[1], t[2]);
    }
    return mesh;
}

}  // namespace jig::shape
