#include "core/stages/part/regions.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>
#include <map>

#include "core/base/error.hpp"
#include "core/science/drape/boxes.hpp"
#include "core/science/mesh/refine.hpp"
#include "core/stages/part/cut_line.hpp"

namespace jig::part {
namespace {

/// Paint lies on faces that look within this of the brush, as `faces_under` has it.
const double kSameWay = std::cos(75 * kPi / 180);

double distance(const auto& p, const auto& a, const auto& b) {
    const auto way = (b - a).eval();
    const double along =
        way.squaredNorm() > 0 ? std::clamp((p - a).dot(way) / way.squaredNorm(), 0.0, 1.0) : 0;
    return (p - a - along * way).norm();
}

/// Whether a zone may lie on the face of this piece; paint lies wherever it was laid.
bool lies_here(const Zone& zone, int piece) {
    return zone.place == ZonePlace::painted || lies_on(zone.piece, piece);
}

/// How far outside each zone a place of the face lies, m; below nought inside.
class Levels {
  public:
    Levels(const ZonesAsked& asked, const TriangleMesh& face, int piece, const Frame& frame, double cell)
        : zones_(asked.places),
          face_(face),
          piece_(piece),
          frame_(frame),
          boxes_(reach(asked.places) + 2 * cell) {
        const Point2 middle = seen_middle(face, frame);
        const auto seen = [&](const Spot& s) -> Point2 { return middle + Point2(s.along, s.across); };
        for (const auto& z : zones_) {
            lines_.emplace_back();
            for (const auto& s : z.line) lines_.back().push_back(seen(s));
        }
        for (const auto& [at, on] : asked.inserts) {
            if (lies_on(on, piece)) inserts_.push_back(seen(at));
        }
        const auto topology = topology_of(face);
        for (std::size_t f = 0; f < face.triangles.size(); ++f) {
            for (int k = 0; k < 3; ++k) {
                if (topology.across[f][static_cast<std::size_t>(k)] != kNoFace) continue;
                rim_.push_back({face.corner(f, k), face.corner(f, (k + 1) % 3)});
                boxes_.add((rim_.back()[0] + rim_.back()[1]) / 2,
                           static_cast<std::uint32_t>(rim_.size() - 1));
            }
        }
    }

    [[nodiscard]] double at(std::size_t zone, const Point& p, const Point& normal) const {
        const auto& z = zones_[zone];
        if (!lies_here(z, piece_)) return 1;
        switch (z.place) {
            case ZonePlace::rim: {
                double least = 1e3;  // far from any rim
                boxes_.around(p, [&](std::uint32_t r) {
                    least = std::min(least, distance(p, rim_[r][0], rim_[r][1]));
                });
                return least - z.width;
            }
            case ZonePlace::band:
                return to_line(zone, p, false) - z.width / 2;
            case ZonePlace::inserts: {
                double least = 1e3;
                for (const auto& place : inserts_) least = std::min(least, (frame_.flat(p) - place).norm());
                return least - z.width;
            }
            case ZonePlace::inside:
                return lines_[zone].size() < 3 ? 1
                       : within(zone, p)       ? -to_line(zone, p, true)
                                               : to_line(zone, p, true);
            case ZonePlace::painted: {
                double least = 1e3;
                for (const auto& touch : z.painted) {
                    const auto dab = touch.dab();
                    if (normal.dot(dab.facing.normalized()) < kSameWay) continue;
                    least = std::min(least, (p - dab.at).norm() - dab.reach);
                }
                return least;
            }
        }
        return 1;
    }

  private:
    static double reach(const std::vector<Zone>& zones) {
        double out = 1e-6;
        for (const auto& z : zones) {
            if (z.place == ZonePlace::rim) out = std::max(out, z.width);
        }
        return out;
    }
    [[nodiscard]] double to_line(std::size_t zone, const Point& p, bool closed) const {
        const auto& line = lines_[zone];
        const Point2 seen = frame_.flat(p);
        double out = 1e3;
        for (std::size_t i = 0; i + (closed ? 0 : 1) < line.size(); ++i)
            out = std::min(out, distance(seen, line[i], line[(i + 1) % line.size()]));
        return out;
    }
    [[nodiscard]] bool within(std::size_t zone, const Point& p) const {
        const Point2 seen = frame_.flat(p);
        const auto& line = lines_[zone];
        bool out = false;
        for (std::size_t i = 0; i < line.size(); ++i) {
            const Point2 &a = line[i], &b = line[(i + 1) % line.size()];
            if ((a.y() > seen.y()) != (b.y() > seen.y()) &&
                seen.x() < a.x() + (seen.y() - a.y()) / (b.y() - a.y()) * (b.x() - a.x()))
                out = !out;
        }
        return out;
    }

    const std::vector<Zone>& zones_;
    const TriangleMesh& face_;
    int piece_;
    const Frame& frame_;
    std::vector<std::vector<Point2>> lines_;
    std::vector<Point2> inserts_;
    std::vector<std::array<Point, 2>> rim_;
    NetBoxes boxes_;
};

/// A corner of a piece of a triangle, with its level in each zone.
struct Corner {
    Point at;
    std::array<double, kMostZones> level{};
};

/// Gets each piece of a triangle with the bits of its zones.
using Taker = std::function<void(const std::vector<Corner>&, std::uint32_t)>;

class Marker {
  public:
    Marker(std::size_t zones, Regions& out, Taker take)
        : zones_(zones), out_(out), take_(std::move(take)), deepest_(zones, 0) {
        out.borders.resize(zones);
        out.middles.resize(zones);
    }
    void lay(const std::vector<Corner>& piece, const Point& normal, std::size_t zone = 0,
             std::uint32_t bits = 0) {
        if (piece.size() < 3) return;
        if (zone == zones_) {
            take_(piece, bits);
            return;
        }
        std::vector<Corner> in, out;
        std::vector<Point> crossed;
        for (std::size_t i = 0; i < piece.size(); ++i) {
            const auto &a = piece[i], &b = piece[(i + 1) % piece.size()];
            const double la = a.level[zone], lb = b.level[zone];
            (la < 0 ? in : out).push_back(a);
            if (la < deepest_[zone]) {
                deepest_[zone] = la;
                out_.middles[zone] = a.at;
            }
            if ((la < 0) == (lb < 0)) continue;
            const double share = la / (la - lb);
            Corner cut;
            cut.at = a.at + share * (b.at - a.at);
            for (std::size_t z = 0; z < zones_; ++z)
                cut.level[z] = a.level[z] + share * (b.level[z] - a.level[z]);
            in.push_back(cut);
            out.push_back(cut);
            crossed.push_back(cut.at);
        }
        if (crossed.size() == 2) out_.borders[zone].push_back({crossed[0], crossed[1], normal});
        lay(in, normal, zone + 1, bits | 1u << zone);
        lay(out, normal, zone + 1, bits);
    }

  private:
    std::size_t zones_;
    Regions& out_;
    Taker take_;
    std::vector<double> deepest_;
};

/// The face fine enough for the bends of a border; how a border cuts a triangle is exact.
Refined laid_fine(const std::vector<Zone>& zones, const Draped& draped, double& cell, Progress& progress) {
    cell = std::sqrt(draped.area) / 60;
    for (const auto& z : zones) {
        if (!lies_here(z, draped.piece)) continue;
        if (z.place == ZonePlace::rim || z.place == ZonePlace::band || z.place == ZonePlace::inserts)
            cell = std::min(cell, z.width / 2);
        for (const auto& t : z.painted) {
            if (z.place == ZonePlace::painted) cell = std::min(cell, t.reach / 2);
        }
    }
    cell = std::max(cell, std::sqrt(draped.area) / 160);
    return refined(*draped.face, cell, progress);
}

/// Cuts the whole face into pieces; `take` gets each with its triangle, that of the draped face, and its
/// bits. Borders and middles go to `out`, the face's area too.
void mark_out(const ZonesAsked& asked, const Frame& frame, const Draped& draped, Regions& out,
              const std::function<void(const std::vector<Corner>&, std::uint32_t, std::uint32_t)>& take,
              Progress& progress) {
    const auto& zones = asked.places;
    if (zones.size() > kMostZones)
        throw InputError("part", fmt::format("it has {} zones, more than {}", zones.size(), kMostZones),
                         "take some together");
    if (zones.empty() || draped.face == nullptr) return;
    double cell = 0;
    const auto fine = laid_fine(zones, draped, cell, progress);
    const auto& face = fine.mesh;
    const Levels levels(asked, face, draped.piece, frame, cell);
    std::size_t f = 0;
    Marker marker(zones.size(), out, [&](const std::vector<Corner>& piece, std::uint32_t bits) {
        take(piece, fine.parent[f], bits);
    });
    // Only paint asks which way a face looks: all else is found once for each point.
    std::vector<std::vector<double>> of_point(zones.size());
    for (std::size_t z = 0; z < zones.size(); ++z) {
        if (zones[z].place == ZonePlace::painted) continue;
        of_point[z].resize(face.points.size());
        for (std::size_t i = 0; i < face.points.size(); ++i) {
            if (i % 1024 == 0) progress.check();
            of_point[z][i] = levels.at(z, face.points[i], Point::UnitZ());
        }
    }
    std::vector<Corner> piece(3);
    for (; f < face.triangles.size(); ++f) {
        if (f % 1024 == 0) progress.check();
        const Point normal = face.area_vector2(f);
        if (!(normal.norm() > 0)) continue;
        out.area += normal.norm() / 2;
        for (int k = 0; k < 3; ++k) {
            auto& corner = piece[static_cast<std::size_t>(k)];
            corner.at = face.corner(f, k);
            const auto point = face.triangles[f][static_cast<std::size_t>(k)];
            for (std::size_t z = 0; z < zones.size(); ++z)
                corner.level[z] =
                    of_point[z].empty() ? levels.at(z, corner.at, normal.normalized()) : of_point[z][point];
        }
        marker.lay(piece, normal.normalized());
    }
}

}  // namespace

ZonesAsked zones_asked(const Choices& c) {
    ZonesAsked out{c.zones, {}};
    for (auto& z : out.places) {
        z.name.clear();
        z.way = {};
        z.layers.clear();
        if (z.place == ZonePlace::inserts) z.line.clear();
    }
    for (const auto& insert : ringed_inserts(c))
        out.inserts.push_back({{insert.along, insert.across}, insert.piece});
    return out;
}

std::vector<Insert> ringed_inserts(const Choices& c) {
    std::vector<Insert> out;
    if (std::none_of(c.zones.begin(), c.zones.end(),
                     [](const Zone& z) { return z.place == ZonePlace::inserts; }))
        return out;
    for (const auto& insert : c.inserts) {
        auto& place = out.emplace_back();
        place.along = insert.along;
        place.across = insert.across;
        place.piece = insert.piece;
    }
    return out;
}

double Regions::area_of(std::size_t zone) const {
    double out = 0;
    for (const auto& r : regions) out += (r.zones >> zone & 1u) != 0 ? r.area : 0;
    return out;
}

Regions regions(const ZonesAsked& asked, const Frame& frame, const Draped& draped, Progress& progress) {
    Regions out;
    std::map<std::uint32_t, double> areas;
    mark_out(
        asked, frame, draped, out,
        [&](const std::vector<Corner>& piece, std::uint32_t, std::uint32_t bits) {
            Point area = Point::Zero();
            for (std::size_t i = 1; i + 1 < piece.size(); ++i)
                area += (piece[i].at - piece[0].at).cross(piece[i + 1].at - piece[0].at);
            areas[bits] += area.norm() / 2;
        },
        progress);
    for (const auto& [bits, area] : areas) {
        // Slivers that only rounding left are no region.
        if (area > 1e-9 * out.area) out.regions.push_back({bits, area});
    }
    if (out.area > 0) out.marks = zones_on(asked, frame, draped, *draped.face);
    return out;
}

std::vector<RegionPiece> region_pieces(const ZonesAsked& asked, const Frame& frame, const Draped& draped,
                                       Progress& progress) {
    std::vector<RegionPiece> out;
    Regions aside;
    mark_out(
        asked, frame, draped, aside,
        [&](const std::vector<Corner>& piece, std::uint32_t face, std::uint32_t bits) {
            auto& one = out.emplace_back();
            one.face = face;
            one.zones = bits;
            for (const auto& corner : piece) one.corners.push_back(corner.at);
        },
        progress);
    return out;
}

std::vector<std::uint32_t> zones_on(const ZonesAsked& asked, const Frame& frame, const Draped& draped,
                                    const TriangleMesh& mesh) {
    std::vector<std::uint32_t> out(mesh.triangles.size(), 0);
    if (asked.places.empty() || !draped.face) return out;
    const Levels levels(asked, *draped.face, draped.piece, frame, std::sqrt(draped.area) / 20);
    for (std::size_t f = 0; f < out.size(); ++f) {
        const Point normal = mesh.area_vector2(f);
        if (!(normal.norm() > 0)) continue;
        for (std::size_t z = 0; z < asked.places.size(); ++z)
            out[f] |= levels.at(z, mesh.centre(f), normal.normalized()) < 0 ? 1u << z : 0u;
    }
    return out;
}

std::vector<Layer> all_layers(const Choices& c) {
    auto out = c.layers;
    for (const auto& z : c.zones) out.insert(out.end(), z.layers.begin(), z.layers.end());
    return out;
}

std::vector<std::pair<Layer, Source>> sources_under(const Choices& c, std::uint32_t zones) {
    std::vector<std::pair<Layer, Source>> out;
    for (std::size_t i = 0; i < c.layers.size(); ++i) out.push_back({c.layers[i], {-1, i}});
    for (std::size_t z = 0; z < c.zones.size(); ++z) {
        if ((zones >> z & 1u) == 0) continue;
        const auto& zone = c.zones[z];
        auto at = out.end();
        if (zone.way == ZoneWay::instead) {
            out.clear();
            at = out.end();
        } else if (zone.way == ZoneWay::for_core) {
            const auto core = [](const auto& l) { return l.first.kind == LayerKind::core; };
            at = std::find_if(out.begin(), out.end(), core);
            const auto place = at - out.begin();
            std::erase_if(out, core);
            at = out.begin() + std::min(place, static_cast<std::ptrdiff_t>(out.size()));
        }
        const auto place = at - out.begin();
        for (std::size_t i = 0; i < zone.layers.size(); ++i)
            out.insert(out.begin() + place + static_cast<std::ptrdiff_t>(i),
                       {zone.layers[i], {static_cast<int>(z), i}});
    }
    return out;
}

bool LiesUnder::operator()(const Source& layer, std::uint32_t zones) {
    auto [at, fresh] = under_.try_emplace(zones);
    if (fresh) {
        for (const auto& [under, source] : sources_under(choices_, zones)) at->second.push_back(source);
    }
    return std::find(at->second.begin(), at->second.end(), layer) != at->second.end();
}

bool has_core(const std::vector<Layer>& layers) {
    return std::any_of(layers.begin(), layers.end(),
                       [](const Layer& l) { return l.kind == LayerKind::core; });
}

Zone fresh_zone(const Choices& c, ZonePlace place, double area) {
    const auto whole = [](double v) { return std::round(v * 200) / 200; };  // 5 mm
    Zone out;
    out.place = place;
    out.name = place == ZonePlace::rim       ? "rim"
               : place == ZonePlace::band    ? "band"
               : place == ZonePlace::painted ? "patch"
               : place == ZonePlace::inserts ? "round inserts"
                                             : "field";
    const auto kind = out.name;
    const auto taken = [&] {
        return std::any_of(c.zones.begin(), c.zones.end(), [&](const Zone& z) { return z.name == out.name; });
    };
    for (int n = 2; taken(); ++n) out.name = fmt::format("{} {}", kind, n);
    const double side = whole(std::clamp(0.1 * std::sqrt(area), 0.01, 1.0));
    out.width = std::min(side, 0.05);
    if (place == ZonePlace::band) out.line = {{-side, 0}, {side, 0}};
    if (place == ZonePlace::inside) out.line = {{-side, -side}, {side, -side}, {side, side}, {-side, side}};
    for (const auto& l : c.layers) {
        if (l.kind == LayerKind::ply) out.layers = {l};
    }
    return out;
}

std::vector<Layer> layers_under(const Choices& c, std::uint32_t zones) {
    std::vector<Layer> out;
    for (auto& [layer, source] : sources_under(c, zones)) out.push_back(std::move(layer));
    return out;
}

}  // namespace jig::part
