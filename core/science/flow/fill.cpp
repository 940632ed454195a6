#include "core/science/flow/fill.hpp"

#include <algorithm>
#include <numbers>

#include "core/base/error.hpp"
#include "core/base/units.hpp"
#include "core/science/flow/pockets.hpp"
#include "core/science/flow/wetting.hpp"

namespace jig {
namespace {

/// One filling as it goes on, in flow time τ = ∫dt/μ.
class Run {
  public:
    Run(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
        const std::vector<Vent>& vents, const Viscosity& viscosity, const FlowRules& rules, Filling& out)
        : mesh_(mesh),
          feeds_(feeds),
          vents_(vents),
          viscosity_(viscosity),
          rules_(rules),
          out_(out),
          w_(mesh, faces, feeds, vents, rules),
          n_(w_.state.size()),
          feed_of_(n_, kNone),
          arrives_at_(n_, -1) {
        out.arrival.assign(n_, {});
        out.vents.assign(vents.size(), {});
        out.feeds.assign(feeds.size(), {});
        for (const auto& f : feeds) {
            feed_p_.push_back(f.pressure);
            hosed_ = hosed_ || f.resists > 0;
            highest_ = std::max(highest_, f.pressure);
        }
        beside_.assign(feeds.size(), 0);
        lowest_ = vents.empty() ? 0 : 1e300;
        for (const auto& v : vents) lowest_ = std::min(lowest_, v.pressure);
        highest_ = std::max(highest_, lowest_);
        corners();
    }

    void go(Progress& progress) {
        const double end = viscosity_.flow_time(rules_.end);
        std::size_t asked = 0;
        const auto tell = [&] {
            while (asked < rules_.times.size() &&
                   viscosity_.flow_time(rules_.times[asked]) <= flow_ * (1 + 1e-12)) {
                out_.front.push_back(w_.share());
                ++asked;
            }
        };
        moments(0);
        tell();
        count_intake();
        for (out_.steps = 0; out_.steps < 200000; ++out_.steps) {
            progress.report(w_.share(), "following the resin");
            trap();
            if (done()) break;
            // Up to the next moment that is known beforehand.
            double limit = end;
            for (std::size_t f = 0; f < feeds_.size(); ++f) {
                for (const auto& m : {std::optional(feeds_[f].open), feeds_[f].shut}) {
                    if (!m || !m->time) continue;
                    const double at = viscosity_.flow_time(*m->time);
                    if (at > flow_ * (1 + 1e-12) && at < limit) limit = at;
                }
            }
            if (asked < rules_.times.size())
                limit = std::min(limit, std::max(viscosity_.flow_time(rules_.times[asked]), flow_));
            // As the front closes it takes up more than its pressures at the start say.
            const double rate = std::max(w_.uptake(), last_rate_);
            double step = rate > 0 ? rules_.share * w_.whole / rate : limit - flow_;
            if (flow_ + step > limit - 1e-3 * step) step = limit - flow_;
            if (step <= 0) break;
            auto before = w_.now();
            bool settled = true, eased = true;
            const auto again = [&](double shorter) {
                step = shorter;
                settled = w_.step(before, step);
                double stiff = 1, missed = 0;
                for (int i = 0; hosed_ && i < 40 && ease(before, stiff, missed); ++i)
                    settled = w_.step(before, step);
                eased = missed < kEased;
            };
            again(step);
            for (int i = 0; i < 6 && !settled; ++i) again(step / 3);
            for (int i = 0; i < 20; ++i) {
                const double much = w_.gained(before) / (rules_.share * w_.whole);
                if (!(much > 2)) break;
                again(step / std::min(much, 3.0));
            }
            const auto full = w_.just_full(before, step);
            if (full.last) out_.last = full.last;
            if (full.step) {
                // Hoses give what they gave: what is left is too little to tell it by.
                step = *full.step;
                settled = w_.step(before, step);
                w_.finely(step);
            }
            // Where nothing moves any more nothing will before the next moment; the last drop is not nothing.
            if (w_.gained(before) <= 1e-6 * std::min(rules_.share * w_.whole, w_.room(before)) &&
                step < limit - flow_)
                again(limit - flow_);
            // What waits for the front to come opens when it comes, not at the step's end.
            for (int i = 0; i < 6; ++i) {
                const auto wet = first_wet(before.full, step);
                if (!wet || *wet > 0.98 * step) break;
                again(std::max(*wet, 0.01 * step) * 1.001);
            }
            out_.unsettled += settled && eased ? 0 : 1;
            last_rate_ = w_.gained(before) / step;
            take(before, step);
            // Of the step that just fills it a solve may leave a crumb over, for which nobody waits another.
            full_ = full.step && w_.room(w_.now()) < 1e-2 * w_.whole / static_cast<double>(n_);
            moments(time());
            tell();
            count_intake();
            if (flow_ >= end * (1 - 1e-12)) break;
        }
        while (asked++ < rules_.times.size()) out_.front.push_back(w_.share());
        close(end);
    }

  private:
    static constexpr std::uint32_t kNone = 0xffffffffu;
    /// Of its volume, what a place may have given that it never had, before no figure is worth anything.
    static constexpr double kOwed = 0.1;
    /// Of its drive, what a feed may still miss when no more rounds are taken: more counts as unsettled.
    static constexpr double kEased = 1e-2;

    [[nodiscard]] bool done() const { return full_ || w_.done(); }
    [[nodiscard]] double time() const { return viscosity_.when(flow_).value_or(rules_.end); }
    /// The share of a point's volume that lies behind it as the resin comes.
    double share_behind(std::uint32_t i) const {
        Point way = Point::Zero();
        for (auto e = w_.net.start[i]; e < w_.net.start[i + 1]; ++e) {
            const auto j = w_.net.to[e];
            if (!w_.crosses(i, j)) continue;
            const double in = -w_.flow(i, e);
            if (in > 0) way += in * (mesh_.points[i] - mesh_.points[j]).normalized();
        }
        double behind = 0, all = 0;
        for (auto k = corner_start_[i]; k < corner_start_[i + 1]; ++k) {
            const double a = mesh_.area_vector2(corner_face_[k]).norm();
            all += a;
            if (way.dot(mesh_.centre(corner_face_[k]) - mesh_.points[i]) <= 0) behind += a;
        }
        return w_.own[i] * (all > 0 ? std::max(behind / all, 0.05) : 0.5);
    }

    /// Flow time into the step at which the front passes a point; none where it does not in this step.
    std::optional<double> passes(std::uint32_t i, const std::vector<double>& before, double step) const {
        const double at = arrives_at_[i] >= 0 ? arrives_at_[i] : share_behind(i), to = w_.after(i);
        if (before[i] >= at || to < at * (1 - 1e-12)) return {};
        return step * std::clamp((at - before[i]) / std::max(to - before[i], 1e-300), 0.0, 1.0);
    }

    std::optional<double> first_wet(const std::vector<double>& before, double step) const {
        std::optional<double> out;
        for (std::size_t f = 0; f < feeds_.size(); ++f) {
            for (const auto* m : {&feeds_[f].open, feeds_[f].shut ? &*feeds_[f].shut : nullptr}) {
                if (m == nullptr || !m->wet ||
                    (m == &feeds_[f].open ? out_.feeds[f].opened : out_.feeds[f].shut))
                    continue;
                const auto at = passes(nearest(*m->wet), before, step);
                if (at && (!out || *at < *out)) out = at;
            }
        }
        return out;
    }

    [[nodiscard]] std::uint32_t nearest(const Point& to) const {
        std::uint32_t best = 0;
        double distance = 1e300;
        for (std::uint32_t i = 0; i < n_; ++i) {
            const double d = (mesh_.points[i] - to).squaredNorm();
            if (w_.net.volume[i] > 0 && d < distance) {
                distance = d;
                best = i;
            }
        }
        return best;
    }

    /// What each open feed lets in per unit of flow time, m³·Pa.
    [[nodiscard]] std::vector<double> intake() const {
        std::vector<double> out(feeds_.size(), 0);
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (w_.state[i] != FlowState::feed) continue;
            for (auto e = w_.net.start[i]; e < w_.net.start[i + 1]; ++e) {
                const auto j = w_.net.to[e];
                if (w_.crosses(i, j) && feed_of_[j] != feed_of_[i]) out[feed_of_[i]] += w_.flow(i, e);
            }
        }
        return out;
    }

    /// Brings feeds to what their hoses leave them of the pressure at the step that was last tried; false
    /// where they are there. `stiff` is how much more steeply than by itself a feed is taken to answer:
    /// others beside it take up what it lets in, and it is doubled where that was too little.
    bool ease(Wetting::Moment& before, double& stiff, double& missed) {
        const auto in = intake();
        double off = 0;
        std::vector<double> to = feed_p_;
        for (std::size_t f = 0; f < feeds_.size(); ++f) {
            const double resists = feeds_[f].resists, p = feed_p_[f];
            if (!(resists > 0) || !out_.feeds[f].opened || out_.feeds[f].shut) continue;
            const double slope = p > lowest_ ? std::max(0.0, in[f]) / (p - lowest_) + beside_[f] : beside_[f];
            const double wanted = (feeds_[f].pressure - p - resists * in[f]) / (1 + resists * slope);
            to[f] = std::clamp(p + wanted / stiff, lowest_, highest_);
            off = std::max(off, std::abs(wanted) / std::max(std::abs(feeds_[f].pressure - lowest_), 1.0));
        }
        if (missed > 0 && off > 0.5 * missed) stiff *= 2;
        missed = off;
        if (off < 1e-4) return false;
        feed_p_ = std::move(to);
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (w_.state[i] == FlowState::feed) before.p[i] = feed_p_[feed_of_[i]];
        }
        return true;
    }

    void take(const Wetting::Moment& before, double step) {
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (out_.arrival[i] || w_.state[i] == FlowState::shut || w_.after(i) <= 0) continue;
            if (const auto at = passes(i, before.full, step)) out_.arrival[i] = viscosity_.when(flow_ + *at);
            if (arrives_at_[i] < 0) arrives_at_[i] = share_behind(i);
        }
        const auto in = intake();
        for (std::size_t f = 0; f < feeds_.size(); ++f) {
            auto& given = out_.feeds[f];
            given.mass += rules_.density * in[f] * step;
            if (given.opened && !given.shut) given.least = std::min(given.least, feed_p_[f]);
        }
        for (std::uint32_t i = 0; i < n_; ++i) {
            if (w_.state[i] == FlowState::vent)
                out_.bled += rules_.density * std::max(0.0, w_.gain[i] - (1 - w_.full[i]) * w_.net.volume[i]);
        }
        w_.take(before, step);
        flow_ += step;
        for (std::size_t v = 0; v < vents_.size(); ++v) {
            if (out_.vents[v]) continue;
            for (const auto i : vents_[v].points) {
                const auto& at = out_.arrival[i];
                if (at && (!out_.vents[v] || *at < *out_.vents[v])) out_.vents[v] = at;
            }
        }
    }

    /// Opens and shuts what is due.
    void moments(double now) {
        for (std::uint32_t f = 0; f < feeds_.size(); ++f) {
            auto& given = out_.feeds[f];
            const auto due = [&](const FlowMoment& m) {
                if (m.time) return *m.time <= now * (1 + 1e-9) + 1e-12;
                return m.wet && out_.arrival[nearest(*m.wet)].has_value();
            };
            if (!given.opened && due(feeds_[f].open)) {
                given.opened = now;
                given.least = feeds_[f].pressure;
                for (const auto i : feeds_[f].points) {
                    if (w_.state[i] == FlowState::shut) continue;
                    w_.state[i] = FlowState::feed;
                    feed_of_[i] = f;
                    w_.p[i] = feed_p_[f];
                    given.mass += rules_.density * (1 - w_.full[i]) * w_.net.volume[i];
                    w_.full[i] = 1;
                    if (!out_.arrival[i]) out_.arrival[i] = now;
                }
                meet();
            }
            if (given.opened && !given.shut && feeds_[f].shut && due(*feeds_[f].shut)) {
                given.shut = now;
                for (const auto i : feeds_[f].points) {
                    if (w_.state[i] == FlowState::feed && feed_of_[i] == f) {
                        w_.state[i] = FlowState::wet;
                        feed_of_[i] = kNone;
                    }
                }
            }
        }
    }

    /// What feeds that touch exchange for a difference of pressure, m³.
    void meet() {
        std::fill(beside_.begin(), beside_.end(), 0);
        for (std::uint32_t i = 0; i < n_; ++i) {
            for (auto e = w_.net.start[i]; e < w_.net.start[i + 1]; ++e) {
                const auto j = w_.net.to[e];
                if (feed_of_[i] != kNone && feed_of_[j] != kNone && feed_of_[i] != feed_of_[j])
                    beside_[feed_of_[i]] += w_.net.conducts[e];
            }
        }
    }

    /// What resin has shut off and no vent draws on stays dry, but for a pocket no larger than the mesh sees.
    void trap() {
        if (vents_.empty()) return;
        const double small = 2 * w_.whole / static_cast<double>(n_);
        for (const auto& pocket : shut_pockets(mesh_, w_.net, w_.state, w_.full)) {
            if (pocket.points.size() < 3 && pocket.room < small) continue;
            for (const auto i : pocket.points) w_.state[i] = FlowState::shut;
            out_.dry.push_back({pocket.at, pocket.area});
        }
    }

    void count_intake() {
        double sum = 0;
        for (const auto& f : out_.feeds) sum += f.mass;
        out_.intake.emplace_back(time(), sum);
    }

    void close(double end) {
        // What solves left over at single points is no air.
        out_.filled = out_.dry.empty() && done() ? 1 : w_.share();
        double held = 0;
        double least = 0;
        for (std::size_t i = 0; i < n_; ++i) {
            held += w_.full[i] * w_.net.volume[i];
            if (w_.net.volume[i] > 0) least = std::min(least, w_.full[i]);
        }
        if (least < -kOwed)
            throw InputError("feeds", "the resin falls faster than it is fed, and its front breaks up",
                             "feed it from below, or with more pressure");
        out_.held = rules_.density * held;
        for (const auto& f : out_.feeds) out_.taken += f.mass;
        if (out_.dry.empty() && done()) out_.fill = viscosity_.when(flow_);
        if (!out_.fill && viscosity_.gels() && flow_ >= end * (1 - 1e-9) && *viscosity_.gels() <= rules_.end)
            out_.gelled = viscosity_.gels();
        std::sort(out_.dry.begin(), out_.dry.end(),
                  [](const DrySpot& a, const DrySpot& b) { return a.area > b.area; });
        double latest = -1;
        if (!out_.fill || !out_.last) {
            for (std::uint32_t i = 0; i < n_; ++i) {
                if (out_.arrival[i] && *out_.arrival[i] > latest) {
                    latest = *out_.arrival[i];
                    out_.last = i;
                }
            }
        }
        for (const auto& [inner, edge] : w_.amid) out_.arrival[inner] = out_.arrival[edge];
        out_.pressure = w_.p;
    }

    /// Faces round each point.
    void corners() {
        corner_start_.assign(n_ + 1, 0);
        for (const auto& t : mesh_.triangles) {
            for (const auto i : t) ++corner_start_[i + 1];
        }
        for (std::size_t i = 0; i < n_; ++i) corner_start_[i + 1] += corner_start_[i];
        corner_face_.resize(corner_start_.back());
        auto next = corner_start_;
        for (std::uint32_t f = 0; f < mesh_.triangles.size(); ++f) {
            for (const auto i : mesh_.triangles[f]) corner_face_[next[i]++] = f;
        }
    }

    const TriangleMesh& mesh_;
    const std::vector<Feed>& feeds_;
    const std::vector<Vent>& vents_;
    const Viscosity& viscosity_;
    const FlowRules& rules_;
    Filling& out_;
    Wetting w_;
    std::size_t n_;
    std::vector<std::uint32_t> feed_of_;
    std::vector<double>
        arrives_at_;  ///< share of a point's volume at which the front is there; below 0 untold
    std::vector<std::uint32_t> corner_start_, corner_face_;
    std::vector<double> feed_p_;  ///< Pa that each feed has over the step
    std::vector<double> beside_;  ///< m³, see `meet`
    bool hosed_ = false;
    bool full_ = false;                ///< but for crumbs
    double lowest_ = 0, highest_ = 0;  ///< Pa of the vents and of the feeds
    double flow_ = 0, last_rate_ = 0;
};

}  // namespace

double hose_resists(double length, double bore) {
    return length > 0 && bore > 0 ? 128 * length / (kPi * bore * bore * bore * bore) : 0;
}

Filling fill(const TriangleMesh& mesh, const std::vector<FaceFlow>& faces, const std::vector<Feed>& feeds,
             const std::vector<Vent>& vents, const Viscosity& viscosity, const FlowRules& rules,
             Progress& progress) {
    for (std::size_t f = 0; f < faces.size(); ++f) {
        if (mesh.area_vector2(f).norm() > 0 && (faces[f].holds <= 0 || faces[f].conducts.trace() <= 0))
            throw InputError("layers", "a face of the mesh has no layer that resin could run in",
                             "let one layer cover all of it");
    }
    if (std::none_of(feeds.begin(), feeds.end(), [](const Feed& f) { return !f.points.empty(); }))
        throw InputError("feeds", "no feed has a point of the mesh", "move or widen a feed's box");
    Filling out;
    Run run(mesh, faces, feeds, vents, viscosity, rules, out);
    run.go(progress);
    return out;
}

}  // namespace jig
