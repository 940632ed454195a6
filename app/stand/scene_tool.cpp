// The flange with its fittings, and the back, on the stand.
#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "app/stand/scene_parts.hpp"

namespace jig::app {
namespace {

/// Edge of the triangles that a flange's bands are draped with, m.
constexpr double kDrape = 0.03;

/// How high a flange lies along its pull.
class FlangeHeights {
  public:
    explicit FlangeHeights(const edge::ToolFace& tool) {
        const auto& mesh = tool.rimmed.mesh;
        for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
            if (tool.rimmed.patch[f] != 1) continue;
            auto& t = faces_.emplace_back();
            for (int c = 0; c < 3; ++c) {
                const auto i = static_cast<std::size_t>(c);
                t.at[i] = tool.frame.flat(mesh.corner(f, c));
                t.high[i] = tool.frame.w.dot(mesh.corner(f, c));
            }
        }
    }
    /// On the triangle that a place lies in or least far out of.
    [[nodiscard]] double at(const Point2& p) const {
        double least = std::numeric_limits<double>::infinity(), height = 0;
        for (const auto& t : faces_) {
            const Point2 u = t.at[1] - t.at[0], v = t.at[2] - t.at[0], q = p - t.at[0];
            const double twice = u.x() * v.y() - u.y() * v.x();
            if (std::abs(twice) < 1e-14) continue;
            const double b = std::clamp((q.x() * v.y() - q.y() * v.x()) / twice, 0.0, 1.0),
                         c = std::clamp((u.x() * q.y() - u.y() * q.x()) / twice, 0.0, 1.0 - b);
            const double off = (t.at[0] + b * u + c * v - p).squaredNorm();
            if (off >= least) continue;
            least = off;
            height = t.high[0] + b * (t.high[1] - t.high[0]) + c * (t.high[2] - t.high[0]);
            if (least < 1e-18) break;
        }
        return height;
    }

  private:
    struct Face {
        std::array<Point2, 3> at;
        std::array<double, 3> high{};
    };
    std::vector<Face> faces_;
};

}  // namespace

void add_flange(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& plain, double raise) {
    if (!f.edge || !f.split) return;
    const bool one = f.split->one_piece(),
               real = f.edge->tool && (!one || job.edge.lie == FlangeLie::following);
    const auto tape_outer =
        offset(real ? f.edge->tool->rim : f.split->joined,
               job.edge.trim + job.edge.channel + job.edge.tape_land, job.edge.corner == FlangeCorner::round);
    if (real) {
        // On the real shape: the bands draped over the flange.
        const auto& tool = *f.edge->tool;
        const FlangeHeights heights(tool);
        const auto height = [&](const Point2& p) { return heights.at(p) + raise; };
        const auto band = [&](const Loops& outside, const Loops& inside, const QColor& colour) {
            add_draped(s, taken_off(outside, inside), tool.frame, height, kDrape, up, colour, Pattern::plain);
        };
        band(f.edge->tape_inner, tool.rim, plain);
        band(tape_outer, f.edge->tape_inner, k.tape);
        band(f.edge->outline, tape_outer, plain);
        return;
    }
    const double z = f.split->foot + raise;
    add_flat(s, taken_off(f.edge->tape_inner, f.edge->rims), z, plain, Pattern::plain);
    add_flat(s, taken_off(tape_outer, f.edge->tape_inner), z, k.tape, Pattern::plain);
    add_flat(s, taken_off(f.edge->outline, tape_outer), z, plain, Pattern::plain);
}

void add_wrap(Scene& s, const bag::Wrap& wrap, const Upright& up, const Ink& k) {
    SceneLine film;
    film.colour = k.petrol;
    film.width = 2.2;
    for (const auto& p : wrap.round.line) film.points.push_back(up(p));
    for (const auto& p : film.points) s.bounds.low.z() = std::min(s.bounds.low.z(), p.z());
    if (!film.points.empty()) s.lines.push_back(std::move(film));
}

void add_film(Scene& s, const bag::Findings& bag, const Upright& up, const Ink& k) {
    const auto& land = bag.film.land;
    if (land.size() < 3) return;
    SceneLine line;
    line.colour = k.petrol;
    line.dashed = true;
    Point middle = Point::Zero();
    for (std::size_t i = 0; i <= land.size(); ++i) line.points.push_back(up(land[i % land.size()]));
    for (const auto& p : land) middle += up(p) / static_cast<double>(land.size());
    s.lines.push_back(line);
    // Even steps round it, to be dragged along.
    constexpr int kSteps = 400;
    std::size_t edge = 0;
    double passed = 0;
    for (int i = 0; i < kSteps; ++i) {
        const double at = bag.rim.length * i / kSteps;
        auto step = (land[(edge + 1) % land.size()] - land[edge]).norm();
        while (edge + 1 < land.size() && passed + step < at) {
            passed += step;
            ++edge;
            step = (land[(edge + 1) % land.size()] - land[edge]).norm();
        }
        const double t = step > 0 ? std::clamp((at - passed) / step, 0.0, 1.0) : 0;
        s.mark_way.push_back(up(land[edge] + t * (land[(edge + 1) % land.size()] - land[edge])));
    }
    const auto& things = bag.rim.things;
    const double size = (s.bounds.high - s.bounds.low).norm();
    int hoses = 0;
    for (std::size_t i = 0; i < things.size(); ++i) {
        const auto& thing = things[i];
        const Point foot = up(thing.place);
        const int number = kRimMarks + static_cast<int>(i);
        if (thing.what == RimThing::pleat) {
            // A fold: both of its sides go up to the same edge.
            const auto way = static_cast<std::size_t>(thing.at * kSteps) % kSteps;
            const Point step = s.mark_way[(way + 1) % kSteps] - s.mark_way[way];
            const Point along = step.norm() > 0 ? Point(step.normalized()) : Point(Point::UnitX()),
                        top = foot + Point(0, 0, thing.height), half = 0.12 * thing.height * along;
            s.lines.push_back({{foot - half, top, foot + half}, k.petrol, 1.6, false});
            s.bounds.high.z() = std::max(s.bounds.high.z(), top.z());
            s.marks.push_back({foot, Fitting::bolt, number, false});
            continue;
        }
        const bool hose = thing.what == RimThing::hose;
        Point out(foot.x() - middle.x(), foot.y() - middle.y(), 0);
        out = out.norm() > 0 ? Point(out.normalized()) : Point(Point::UnitX());
        const Point end = foot + 0.06 * size * out;
        if (hose) s.lines.push_back({{foot, end}, k.clay, 3.4, false});
        s.marks.push_back({foot, hose ? Fitting::port : Fitting::bush, number, false});
        s.labels.push_back({hose ? end : Point(foot + 0.03 * size * out),
                            hose ? QString("hose %1").arg(++hoses) : QString("gauge")});
    }
}

void add_bag_cuts(Scene& s, const bag::Findings& bag, std::optional<std::size_t> layer, const Upright& up,
                  const Ink& k, const Wording& w) {
    const auto& all = bag.layers;
    const bag::BagLayer* shown = layer && *layer < all.size() ? &all[*layer] : nullptr;
    if (shown == nullptr) {
        for (const auto& l : all) {
            if (!l.darts.empty() && (shown == nullptr || l.darts.size() > shown->darts.size())) shown = &l;
        }
    }
    if (shown != nullptr && !shown->darts.empty()) {
        Point middle = Point::Zero();
        for (const auto& p : bag.film.land) middle += up(p) / static_cast<double>(bag.film.land.size());
        const double leg = 0.07 * (s.bounds.high - s.bounds.low).norm();
        for (const auto& d : shown->darts) {
            const Point at = up(d.at);
            Point out(at.x() - middle.x(), at.y() - middle.y(), 0);
            out = out.norm() > 1e-3 * leg ? Point(out.normalized()) : Point(Point::UnitX());
            const double half = std::min(std::abs(d.angle), 2.0) / 2;
            const auto side = [&](double a) {
                return Point(at + leg * Point(std::cos(a) * out.x() - std::sin(a) * out.y(),
                                              std::sin(a) * out.x() + std::cos(a) * out.y(), 0));
            };
            s.lines.push_back({{side(half), at, side(-half)}, k.petrol, 2.2, d.angle < 0});
        }
        s.legend = "angles: darts of the " + QString::fromStdString(shown->name) +
                   ", as wide as they close; dashed: slits that open";
    }
    add_bridge(s, bag, up, k, w);
}

void add_bridge(Scene& s, const bag::Findings& bag, const Upright& up, const Ink& k, const Wording& w) {
    if (bag.bridge) {
        SceneLine film;
        film.colour = k.oxide;
        film.width = 2.2;
        for (const auto& p : bag.bridge->line) film.points.push_back(up(p));
        s.lines.push_back(film);
        s.legend += QString(s.legend.isEmpty() ? "" : "; ") + "red: the film, where it lacks most";
        s.labels.push_back(
            {up(bag.bridge->at),
             QString::fromStdString(show(Kind::length, bag.bridge->gap, w)) + " off the face"});
    }
}

void add_tightening(Scene& s, const Job& job, const Findings& f) {
    std::optional<FlangeHeights> real;
    if (f.edge->tool && (!f.split->one_piece() || job.edge.lie == FlangeLie::following))
        real.emplace(*f.edge->tool);
    int number = 0;
    for (const auto& bolt : f.bag->clamp->order) {
        const Point at(bolt.place.x(), bolt.place.y(), real ? real->at(bolt.place) : f.split->foot);
        s.marks.push_back({at, Fitting::bolt, -1, false, QString::number(++number)});
    }
}

void add_fittings(Scene& s, const Job& job, const Findings& f) {
    if (!f.edge || !f.split) return;
    const double z = f.split->foot;
    const bool one = f.split->one_piece();
    std::optional<FlangeHeights> real;
    if (f.edge->tool && (!one || job.edge.lie == FlangeLie::following)) real.emplace(*f.edge->tool);
    const auto place = [&](const Point2& p) { return Point(p.x(), p.y(), real ? real->at(p) : z); };
    for (const auto& fit : f.edge->fits) {
        auto at = place(fit.place);
        // Ports in the face sit where it is deepest.
        if (fit.number < 0) at.z() = s.bounds.high.z();
        s.marks.push_back({at, fit.kind, fit.number});
    }
    constexpr int kSteps = 400;
    for (int i = 0; i < kSteps; ++i)
        s.mark_way.push_back(
            place(edge::fit_at(f.edge->fitting_line, Fitting::bolt, static_cast<double>(i) / kSteps).place));
}

void add_back(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k) {
    if (!f.back || !f.split) return;
    if (f.back->crate) {
        const bool foam = job.back.kind == BackKind::foam_blocks;
        const auto colour = hatch_ground(foam ? Hatch::foam : Hatch::ply_wood, k);
        for (const auto& rib : f.back->crate->ribs) {
            const bool across = std::abs(rib.plane.w.dot(up.frame.u)) > 0.5;
            add_flat(s, rib.outline, rib.plane, rib.at, up, across ? colour : colour.darker(106),
                     Pattern::grain);
            for (const auto& loop : rib.outline) {
                SceneLine edge;
                for (const auto& q : simplified(loop, 0.0008))
                    edge.points.push_back(up(rib.plane.lift(q, rib.at)));
                edge.points.push_back(edge.points.front());
                edge.colour = k.faint;
                s.lines.push_back(std::move(edge));
            }
        }
        s.bounds.high.z() = std::max(s.bounds.high.z(), f.back->crate->level);
        s.legend = "the tool as it lies on the plug; turned over, it stands on its feet";
        return;
    }
    if (job.back.has_bars() && f.trial && !f.trial->bars.empty()) {
        for (const auto& [a, b] : f.trial->bars) {
            const Point &p = f.trial->mesh.points[a], &q = f.trial->mesh.points[b];
            s.lines.push_back({{p, q}, k.ink, 3.0, false});
            s.bounds.high.z() = std::max({s.bounds.high.z(), p.z(), q.z()});
        }
        s.legend = "tubes as they stand on the shell; turned over, the tool stands on them";
        return;
    }
    s.legend = job.back.kind == BackKind::sandwich ? "core and an inner skin go over the back of this shell"
                                                   : "the shell alone";
}

}  // namespace jig::app
