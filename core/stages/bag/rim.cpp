#include "core/stages/bag/rim.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "core/stages/bag/findings.hpp"
#include "core/stages/bag/ports.hpp"

namespace jig::bag {
namespace {

/// Places on the land that the rules choose from.
constexpr int kPlaces = 240;
/// Of a hose's outside to its bore, typical.
constexpr double kWall = 1.4;

/// The land as a way of its own length.
class Land {
  public:
    explicit Land(const Film& film) : film_(film) {
        double passed = 0;
        for (std::size_t k = 0; k < film.land.size(); ++k) {
            begins_.push_back(passed);
            passed += (film.land[(k + 1) % film.land.size()] - film.land[k]).norm();
        }
        length_ = passed;
    }
    [[nodiscard]] double length() const { return length_; }
    [[nodiscard]] Point at(double share) const {
        const double way = std::clamp(share, 0.0, 1.0) * length_;
        auto next = std::upper_bound(begins_.begin(), begins_.end(), way);
        const auto k = static_cast<std::size_t>(next - begins_.begin()) - 1;
        const Point &a = film_.land[k], &b = film_.land[(k + 1) % film_.land.size()];
        const double step = (b - a).norm();
        return step > 0 ? Point(a + (b - a) * std::min(1.0, (way - begins_[k]) / step)) : a;
    }
    /// The share of the place on it nearest to `p`.
    [[nodiscard]] double nearest(const Point& p) const {
        double best = 0, least = 1e300;
        for (std::size_t k = 0; k < film_.land.size(); ++k) {
            const Point &a = film_.land[k], d = film_.land[(k + 1) % film_.land.size()] - a;
            const double squared = d.squaredNorm();
            const double t = squared > 0 ? std::clamp((p - a).dot(d) / squared, 0.0, 1.0) : 0;
            const double off = (a + t * d - p).squaredNorm();
            if (off >= least) continue;
            least = off;
            best = begins_[k] + t * std::sqrt(squared);
        }
        return length_ > 0 ? std::min(1.0, best / length_) : 0;
    }

  private:
    const Film& film_;
    std::vector<double> begins_;
    double length_ = 0;
};

double round_share(double a) {
    return a - std::floor(a);
}

/// Shares of the way between two places, the shorter way round.
double between(double a, double b) {
    const double d = std::abs(round_share(a) - round_share(b));
    return std::min(d, 1 - d);
}

double to_nearest(double at, const std::vector<double>& others) {
    double least = 0.5;
    for (const double o : others) least = std::min(least, between(at, o));
    return least;
}

/// So many hoses in even steps.
std::vector<double> hoses_by_rule(int count, const Land& land, const std::vector<double>& pleats,
                                  double clear) {
    std::vector<Point> places;
    for (int i = 0; i < kPlaces; ++i) places.push_back(land.at(static_cast<double>(i) / kPlaces));
    struct Turned {
        double turn = 0, far = 0, free = 0;
    };
    std::vector<Turned> tried;
    const int turns = std::max(1, kPlaces / count);
    for (int i = 0; i < turns; ++i) {
        Turned t{static_cast<double>(i) / kPlaces, 0, 0.5};
        std::vector<Point> hoses;
        for (int h = 0; h < count; ++h) {
            const double at = round_share(t.turn + static_cast<double>(h) / count);
            hoses.push_back(land.at(at));
            t.free = std::min(t.free, to_nearest(at, pleats));
        }
        for (const auto& p : places) {
            double near = 1e300;
            for (const auto& h : hoses) near = std::min(near, (h - p).norm());
            t.far = std::max(t.far, near);
        }
        tried.push_back(t);
    }
    // Clear of pleats first, then near to all of the rim, then as clear as may be.
    const double need = land.length() > 0 ? clear / land.length() : 0;
    const bool any = std::any_of(tried.begin(), tried.end(), [&](const Turned& t) { return t.free >= need; });
    double least = 1e300;
    for (const auto& t : tried) {
        if (!any || t.free >= need) least = std::min(least, t.far);
    }
    const Turned* best = nullptr;
    for (const auto& t : tried) {
        if ((any && t.free < need) || t.far > 1.02 * least) continue;
        if (best == nullptr || t.free > best->free + 1e-9) best = &t;
    }
    std::vector<double> out;
    for (int h = 0; h < count; ++h) out.push_back(round_share(best->turn + static_cast<double>(h) / count));
    return out;
}

/// Where on the rim it is farthest to a hose, clear of pleats where that can be.
double gauge_by_rule(const Land& land, const std::vector<double>& hoses, const std::vector<double>& pleats,
                     double clear) {
    const double need = land.length() > 0 ? clear / land.length() : 0;
    double best = 0, most = -1;
    for (int i = 0; i < kPlaces; ++i) {
        const double at = static_cast<double>(i) / kPlaces, free = to_nearest(at, pleats);
        // By as much as it stands into a pleat it is no place for a gauge.
        const double good = to_nearest(at, hoses) - (free < need ? 1 + need - free : 0);
        if (good <= most + 1e-9 && i > 0) continue;
        most = good;
        best = at;
    }
    return best;
}

std::vector<double> own_of(const Choices& c, RimThing what) {
    std::vector<double> out;
    for (const auto& p : c.placed) {
        if (p.what == what) out.push_back(p.at);
    }
    return out;
}

Fix placed_fix(std::string said, const std::vector<OnRim>& list) {
    return {std::move(said), patch_of("bag", "placed", to_json_value(list))};
}

}  // namespace

int Rim::count(RimThing what) const {
    return static_cast<int>(
        std::count_if(things.begin(), things.end(), [&](const Standing& s) { return s.what == what; }));
}

Rim rim_of(const Choices& c, const Film& film, bool with_hoses) {
    Rim out;
    if (film.land.size() < 3) return out;
    const Land land(film);
    out.length = land.length();
    out.clear = std::max(0.04, 2 * c.bore);
    std::vector<double> pleats;
    for (const auto& p : film.pleats) pleats.push_back(out.length > 0 ? p.at / out.length : 0);
    auto hoses = own_of(c, RimThing::hose), gauges = own_of(c, RimThing::gauge);
    if (!with_hoses)
        hoses.clear();
    else if (hoses.empty())
        hoses = hoses_by_rule(std::max(1, c.hoses), land, pleats, out.clear);
    if (gauges.empty()) gauges.push_back(gauge_by_rule(land, hoses, pleats, out.clear));
    const auto add = [&](RimThing what, double at, double height, const std::vector<double>& from) {
        out.things.push_back({what, at, land.at(at), height, out.length * to_nearest(at, from)});
    };
    for (const double at : hoses) add(RimThing::hose, at, 0, pleats);
    for (const double at : gauges) add(RimThing::gauge, at, 0, hoses);
    // The film has them in their order round the land; the maker's list in his.
    const auto own = own_of(c, RimThing::pleat);
    if (pleats.empty()) return out;  // a bag that is used again has none, whatever was placed
    if (own.empty()) {
        for (std::size_t i = 0; i < pleats.size(); ++i)
            add(RimThing::pleat, pleats[i], film.pleats[i].height, hoses);
    } else {
        for (const double at : own) {
            double height = 0;
            for (std::size_t i = 0; i < pleats.size(); ++i) {
                if (std::abs(pleats[i] - at) < 1e-9) height = film.pleats[i].height;
            }
            add(RimThing::pleat, at, height, hoses);
        }
        for (std::size_t i = 0; i < film.ruled.size(); ++i) {
            const double at = film.ruled[i].at / out.length, off = out.length * to_nearest(at, own);
            if (off <= std::max(film.depth, out.missed_by)) continue;
            out.missed = static_cast<int>(i) + 1;
            out.missed_by = off;
            out.missed_at = land.at(at);
        }
    }
    return out;
}

void reach_over(Rim& rim, const TriangleMesh& face, const Frame& frame) {
    const FlowGround ground(face, frame);
    if (ground.rim().empty()) return;
    std::vector<std::uint32_t> from;
    for (const auto& s : rim.things) {
        if (s.what != RimThing::hose) continue;
        auto nearest = ground.rim().front();
        for (const auto i : ground.rim()) {
            if ((face.points[i] - s.place).squaredNorm() < (face.points[nearest] - s.place).squaredNorm())
                nearest = i;
        }
        from.push_back(nearest);
    }
    if (from.empty()) return;
    const auto away = ground.away_from(from);
    for (const auto& t : face.triangles) {
        for (const auto i : t) {
            if (away[i] > 1e299 || away[i] <= rim.far) continue;
            rim.far = away[i];
            rim.far_at = face.points[i];
        }
    }
}

std::vector<OnRim> with_own(const Choices& c, const Rim& rim, RimThing what) {
    auto out = c.placed;
    if (c.placed_of(what) > 0) return out;
    for (const auto& s : rim.things) {
        if (s.what == what) out.push_back({s.what, s.at});
    }
    return out;
}

std::size_t place_in_list(const std::vector<OnRim>& list, const Rim& rim, std::size_t number) {
    const auto what = rim.things.at(number).what;
    std::size_t nth = 0;
    for (std::size_t i = 0; i < number; ++i) nth += rim.things[i].what == what ? 1 : 0;
    for (std::size_t i = 0; i < list.size(); ++i) {
        if (list[i].what == what && nth-- == 0) return i;
    }
    return list.size();
}

void rim_calls(const Choices& c, const Findings& f, double room, Calls& out) {
    const auto& rim = f.rim;
    if (rim.things.empty()) return;
    const auto add = [&](Severity s, const char* key, std::string headline, std::string why,
                         std::optional<Fix> fix, const Point& at) {
        Call call{Stage::bag, s, key, std::move(headline), std::move(why), std::move(fix)};
        call.at = at;
        out.push_back(std::move(call));
    };
    const Land land(f.film);
    const auto first = [&](RimThing what) {
        return std::find_if(rim.things.begin(), rim.things.end(),
                            [&](const Standing& s) { return s.what == what; });
    };
    const auto moved = [&](std::size_t number, double to) {
        auto list = with_own(c, rim, rim.things[number].what);
        const auto at = place_in_list(list, rim, number);
        if (at < list.size()) list[at].at = to;
        return list;
    };
    const double thick = kWall * c.bore, wide = std::ceil(thick * 1000) / 1000;
    if (const auto hose = first(RimThing::hose); hose != rim.things.end() && thick > room + 1e-6)
        add(Severity::note, "hose_room",
            fmt::format("A hose of {} finds {} between part and tape", quantity(Kind::length, thick),
                        room > 1e-6 ? quantity(Kind::length, room) : std::string("no room")),
            "What lies on the part prints in it: leave a channel beside it, or end the hose on breather that "
            "is laid out past the edge.",
            Fix{"Leave a channel of " + quantity(Kind::length, wide), patch_of("edge", "channel", wide)},
            hose->place);
    // Of each kind the worst: the others follow when it has been mended.
    const auto worst = [&](RimThing what, const auto& worse) {
        std::optional<std::size_t> found;
        for (std::size_t i = 0; i < rim.things.size(); ++i) {
            if (rim.things[i].what == what && (!found || worse(rim.things[i], rim.things[*found]))) found = i;
        }
        return found;
    };
    const auto nearer = [](const Standing& a, const Standing& b) { return a.off < b.off; };
    for (const auto& number :
         {worst(RimThing::hose, nearer), worst(RimThing::gauge, nearer),
          worst(RimThing::pleat, [](const Standing&a, const Standing&b) { return a.height > b.height; })}) {
        if (!number) continue;
        const auto i = *number;
        const auto& s = rim.things[i];
        if (s.what == RimThing::hose && c.placed_of(RimThing::hose) > 0 && rim.count(RimThing::pleat) > 0 &&
            s.off < rim.clear - 1e-9) {
            std::vector<double> pleats;
            for (const auto& p : rim.things) {
                if (p.what == RimThing::pleat) pleats.push_back(p.at);
            }
            // The nearest place that is clear.
            std::optional<double> to;
            for (int k = 0; k < kPlaces; ++k) {
                const double at = static_cast<double>(k) / kPlaces;
                if (rim.length * to_nearest(at, pleats) < rim.clear) continue;
                if (!to || between(at, s.at) < between(*to, s.at)) to = at;
            }
            add(Severity::caution, "hose_in_pleat",
                "A hose comes out " + quantity(Kind::length, s.off) + " from a pleat",
                "Two folds of tape in one place are where bags leak: " + quantity(Kind::length, rim.clear) +
                    " clear, at least.",
                to ? std::optional(placed_fix("Move it clear of pleats", moved(i, *to))) : std::nullopt,
                s.place);
        }
        if (s.what == RimThing::gauge && c.placed_of(RimThing::gauge) > 0 && rim.count(RimThing::hose) > 0) {
            std::vector<double> hoses, pleats;
            for (const auto& p : rim.things) {
                if (p.what == RimThing::hose) hoses.push_back(p.at);
                if (p.what == RimThing::pleat) pleats.push_back(p.at);
            }
            const double best = gauge_by_rule(land, hoses, pleats, rim.clear);
            if (s.off < rim.length * to_nearest(best, hoses) / 3)
                add(Severity::note, "gauge_near",
                    "The gauge stands " + quantity(Kind::length, s.off) + " from a hose",
                    "There it reads what the pump makes of it, not what reaches the far end of the bag.",
                    placed_fix("Put it where hoses are farthest", moved(i, best)), s.place);
        }
        if (s.what == RimThing::pleat && c.placed_of(RimThing::pleat) > 0 && s.height > c.pleat + 1e-9) {
            auto list = c.placed;
            std::erase_if(list, [](const OnRim& p) { return p.what == RimThing::pleat; });
            add(Severity::caution, "pleat_tall",
                "A pleat would stand " + quantity(Kind::length, s.height) + " tall; " +
                    quantity(Kind::length, c.pleat) + " are set as the most",
                "What it takes up lies nearest to it. Tall pleats fall over and open at their tip.",
                placed_fix("Lay the pleats by the rules", list), s.place);
        }
    }
    if (rim.missed > 0) {
        auto list = with_own(c, rim, RimThing::pleat);
        list.push_back({RimThing::pleat, land.nearest(rim.missed_at)});
        add(Severity::caution, "no_pleat_here",
            "No pleat stands within " + quantity(Kind::length, rim.missed_by) + " of a place that needs one",
            "A fold falls into the hollow only as far off as the hollow is deep, here " +
                quantity(Kind::length, f.film.depth) + ": the film bridges there.",
            placed_fix("Add one there", list), rim.missed_at);
    }
    if (f.reaches > 0 && rim.far > f.reaches) {
        std::optional<Fix> fix;
        if (c.placed_of(RimThing::hose) == 0) {
            fix = Fix{fmt::format("Draw at {} hoses", c.hoses + 1), patch_of("bag", "hoses", c.hoses + 1)};
        } else {
            auto list = c.placed;
            list.push_back({RimThing::hose, land.nearest(rim.far_at)});
            fix = placed_fix("Add a hose there", list);
        }
        add(Severity::caution, "far_from_hose",
            "The face's far end lies " + quantity(Kind::length, rim.far) + " from a hose",
            "Pressed together, " + f.carries + " carries air over about " +
                quantity(Kind::length, f.reaches) + ": past that it empties late, or not at all.",
            c.hoses >= 20 && c.placed_of(RimThing::hose) == 0 ? std::nullopt : std::move(fix), rim.far_at);
    }
}

}  // namespace jig::bag
