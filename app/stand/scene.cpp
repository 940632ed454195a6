#include "app/stand/scene.hpp"

#include <algorithm>
#include <cmath>

#include "app/stand/scene_parts.hpp"

namespace jig::app {
namespace {

/// Something everybody knows the size of, lying aside at the left end: a sheet of A4 by small things, a
/// metre rule by large ones.
void add_scale_figure(Scene& s, const Ink& k) {
    const bool large = (s.bounds.high - s.bounds.low).head<2>().maxCoeff() > 1.6;
    const double wide = large ? 0.04 : 0.21, deep = large ? 1.0 : 0.297;
    // Clear of a dimension that may run there.
    const double clear =
        s.dimensions.empty() ? 0.08 : 0.05 + 0.14 * (s.bounds.high - s.bounds.low).head<2>().maxCoeff();
    const double x = s.bounds.low.x() - wide - clear, y = (s.bounds.low.y() + s.bounds.high.y() - deep) / 2;
    const Point a(x, y, s.ground), b(x + wide, y, s.ground), c(x + wide, y + deep, s.ground),
        d(x, y + deep, s.ground);
    add_quad(s, a, b, c, d, k.sheet, Pattern::plain);
    s.lines.push_back({{a, b, c, d, a}, k.faint, 1, false});
    for (int i = 1; i < (large ? 10 : 6); ++i) {
        const Point up(0, large ? 0.1 * i : 0.045 * i, 0), in(large ? 0 : 0.03, 0, 0);
        s.lines.push_back({{a + up + in, b + up - in}, large ? k.faint : k.rule, 1, false});
    }
    s.labels.push_back({(a + b) / 2 - Point(0, 0.05, 0), large ? "1 m rule" : "A4 sheet"});
    const auto before = s.aside.value_or(s.bounds);
    s.aside = {a.cwiseMin(before.low), c.cwiseMax(before.high)};
}

void add_dimensions(Scene& s, const Wording& w) {
    const auto &lo = s.bounds.low, &hi = s.bounds.high;
    const double away = 0.12 * (hi - lo).head<2>().maxCoeff();
    const auto text = [&](double v) { return QString::fromStdString(show(Kind::length, v, w)); };
    const std::array<double, 2> x{lo.x(), hi.x()}, y{lo.y(), hi.y()}, out{-1, 1};
    // Along each edge on the ground, and up each corner.
    std::vector<Dimension> length, width, height;
    for (const std::size_t far : {0, 1}) {
        const double side = y[far], end = x[1 - far];
        length.push_back({{lo.x(), side, s.ground},
                          {hi.x(), side, s.ground},
                          {0, out[far] * away, 0},
                          text(hi.x() - lo.x())});
        width.push_back({{end, lo.y(), s.ground},
                         {end, hi.y(), s.ground},
                         {out[1 - far] * away, 0, 0},
                         text(hi.y() - lo.y())});
        for (const std::size_t at : {1, 0})
            height.push_back({{x[at], side, lo.z()},
                              {x[at], side, hi.z()},
                              {out[at] * away * 0.6, out[far] * away * 0.6, 0},
                              text(hi.z() - lo.z())});
    }
    for (auto* all : {&length, &width, &height}) {
        auto first = all->front();
        first.elsewhere.assign(all->begin() + 1, all->end());
        s.dimensions.push_back(std::move(first));
    }
}

/// A small cross where the file was mended, and where faces crowd an edge still.
void add_repairs(Scene& s, const Findings& f, const Upright& up, const Ink& k) {
    const double arm = 0.012 * s.bounds.diagonal();
    auto marked = f.shape->repairs;
    for (const auto& left : f.shape->left) {
        if (left.what == kCrowded) marked.push_back(left);
    }
    for (const auto& repair : marked) {
        for (const auto& place : repair.places) {
            const Point p = up(place);
            for (int i = 0; i < 3; ++i)
                s.lines.push_back({{p - arm * Point::Unit(i), p + arm * Point::Unit(i)}, k.tape, 2.0, false});
        }
        if (!repair.places.empty() && repair.count <= 50)
            s.labels.push_back(
                {up(repair.places.front()) + Point(0, 0, 2 * arm), QString::fromStdString(repair.what)});
    }
}

/// By face of the mould, whether a painted doubler lies on it; empty where none is painted.
std::vector<char> painted_faces(const Job& job, const TriangleMesh& mesh) {
    std::vector<char> out;
    for (const auto& zone : job.shell.zones) {
        if (zone.kind != ZoneKind::painted || zone.painted.empty()) continue;
        const auto touched = shell::painted_faces(zone, mesh);
        out.resize(touched.size(), 0);
        for (std::size_t f = 0; f < touched.size(); ++f) out[f] |= touched[f];
    }
    return out;
}

/// Painted doublers by their numbers, as the table counts them.
void add_doubler_brushes(Scene& s, const Job& job, const Ink& k) {
    std::vector<std::pair<std::size_t, QString>> painted;
    for (std::size_t z = 0; z < job.shell.zones.size(); ++z) {
        if (job.shell.zones[z].kind == ZoneKind::painted)
            painted.emplace_back(z, QString("doubler %1").arg(z + 1));
    }
    if (painted.size() == 1) painted[0].second = "doubler";
    add_paint_brushes(s, painted, "doubler", k);
}

}  // namespace

Scene scene_of_plan(const plug::Plan& plan, const TriangleMesh& surface, const Frame& frame, const Ink& k) {
    Scene s;
    const Upright up{frame};
    s.upright = frame;
    s.bounds.low = Point::Constant(1e30);
    s.bounds.high = -s.bounds.low;
    for (const auto& t : surface.triangles) {
        for (const auto i : t) {
            s.bounds.low = s.bounds.low.cwiseMin(up(surface.points[i]));
            s.bounds.high = s.bounds.high.cwiseMax(up(surface.points[i]));
        }
    }
    s.ground = s.bounds.low.z();
    add_plan(s, plan, surface, up, k, 0.5);
    return s;
}

namespace {}  // namespace

namespace {

/// Whether a stage's scene has the face where it lies, so that places on it can be flagged.
bool flags_stand(const Job& job, const Findings& f, Stage stage) {
    if (stage == Stage::heat) return job.heat.stands == OnStand::folds && f.heat && f.heat->folds.on.face;
    return stage == Stage::bag || stage == Stage::part ||
           (stage == Stage::split && f.split && f.split->one_piece());
}

void add_call_flags(Scene& s, const Findings& f, Stage stage, const Upright& up, const Wording& w) {
    int number = 0;
    for (const auto* call : worst_first(f.calls, stage)) {
        if (call->at)
            s.flags.push_back({up(*call->at), ++number, call->severity, QString::fromStdString(call->key),
                               QString::fromStdString(worded(call->headline, w))});
    }
}

}  // namespace

Scene scene_of(const Job& job, const Findings& f, Stage stage, const Ink& k, const Wording& w,
               const View& view) {
    Scene s;
    if (!f.shape) return s;
    // Of a mould in pieces the tool's stages show the piece that is chosen, as it is pulled.
    const bool of_piece = f.split && !f.split->one_piece() && f.edge && f.edge->tool && stage_of_tool(stage);
    const Upright up{of_piece  ? f.edge->tool->frame
                     : f.split ? f.split->frame
                               : frame_across(Point::UnitZ())};
    // The mould is taken from all parts that lie in it; what is about the part shows one.
    const bool of_mould = f.split && (stage == Stage::plug || stage_of_tool(stage) ||
                                      (stage == Stage::split && f.split->one_piece()));
    const auto lone = of_piece ? edge::moulded_face(*f.edge->tool) : TriangleMesh{};
    const auto& mesh = of_piece ? lone : of_mould ? split::mould_mesh(*f.shape, *f.split) : f.shape->mesh;
    const auto faces = f.shape->mesh.triangles.size();
    s.upright = up.frame;
    s.bounds.low = Point::Constant(1e30);
    s.bounds.high = -s.bounds.low;
    for (const auto& t : mesh.triangles) {
        for (const auto i : t) {
            const Point p = up(mesh.points[i]);
            s.bounds.low = s.bounds.low.cwiseMin(p);
            s.bounds.high = s.bounds.high.cwiseMax(p);
        }
    }
    s.ground = s.bounds.low.z();
    const double shell = f.shell ? f.shell->stack.laminate.thickness : 0.005;
    const auto plain = [&](const QColor& colour) {
        return [&f, colour](std::size_t face, QColor& c, Pattern&) {
            c = colour;
            if (!f.split) return true;
            const auto& map = f.split->map.faces;
            return map.empty() || map[face % map.size()] != Release::open;
        };
    };
    const QColor stone = stage == Stage::part ? hatch_ground(Hatch::cloth_light, k)
                                              : k.sheet.darker(k.paper.lightness() > 128 ? 106 : 70)
                                                    .lighter(k.paper.lightness() > 128 ? 100 : 210);
    const QColor shell_colour = hatch_ground(Hatch::cloth_heavy, k);
    bool wide = true;
    // A block is shown as one wherever the tool alone is looked at.
    const bool turned =
        f.plug && plug::no_plug(job.plug) &&
        (stage == Stage::plug || stage == Stage::shell || stage == Stage::back || stage == Stage::heat);
    if (stage == Stage::heat && job.heat.stands == OnStand::folds && f.heat && f.heat->folds.on.face) {
        add_folds(s, f.heat->folds, up, k, stone, w);
    } else if (turned) {
        add_moulds(s, f.plug->plans, up, k, view.apart);
        s.comes_apart = stage == Stage::plug && job.plug.direct.way == MouldWay::printed;
        if (stage == Stage::heat)
            s.legend = "the block as it stands; where its thermocouples go stands in Heat's list";
    } else
        switch (stage) {
            case Stage::split:
                if (f.split && !f.split->one_piece()) {
                    // The plane's travel is the part's own extent, before its pieces are drawn apart.
                    if (job.split.way == SplitWay::plane) add_plane(s, job, up);
                    add_pieces(s, job, f, up, k, stone, view);
                    break;
                }
                add_shape(s, mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
                    const auto r = f.split ? f.split->map.faces[face % faces] : Release::slides;
                    c = release_colour(r, k);
                    p = r == Release::locks   ? Pattern::crosses
                        : r == Release::drags ? Pattern::dots
                                              : Pattern::plain;
                    return r != Release::open;
                });
                s.legend =
                    "plain: slides    dotted: drags    crossed: locks    yellow line: no draft    arrow: the "
                    "pull";
                if (f.split) add_pull(s, f, up, k, w);
                break;
            case Stage::plug:
                if (f.plug) {
                    for (std::size_t i = 0; i < f.plug->plans.size(); ++i) {
                        const bool parted = f.plug->plans.size() > 1;
                        add_plan(s, f.plug->plans[i], parted ? f.split->set.pieces[i].mesh : mesh, up, k,
                                 view.apart);
                    }
                    const auto route = job.plug.route;
                    s.comes_apart = route == Route::slabs || route == Route::tiles ||
                                    route == Route::splash || f.plug->plans.size() > 1;
                }
                break;
            case Stage::bag:
                // A layer that is chosen is looked at in place of the front.
                if (f.flow && !(view.bag_layer && f.bag && *view.bag_layer < f.bag->layers.size())) {
                    if (view.thickness && f.flow->thickness)
                        add_flow_thickness(s, *f.flow, up, k, view.apart);
                    else
                        add_flow(s, job, f, up, k, w, view.apart);
                    if (f.bag) add_bridge(s, *f.bag, up, k, w);
                    if (f.bag) add_wrap(s, f.bag->wrap, up, k);
                    wide = false;
                    break;
                }
                add_shape(s, mesh, up, 0, 0, plain(stone));
                add_flange(s, job, f, up, k, stone.darker(104), 0);
                if (f.bag && f.bag->clamp && !f.bag->clamp->order.empty()) {
                    add_tightening(s, job, f);
                    s.legend = "bolts, numbered as they are drawn up: crosswise, in three rounds";
                }
                if (f.bag && f.bag->closed) {
                    add_film(s, *f.bag, up, k);
                    add_wrap(s, f.bag->wrap, up, k);
                    add_bag_cuts(s, *f.bag, view.bag_layer, up, k, w);
                    s.legend =
                        (f.bag->wrap.sheets > 0 ? QString("line: the film round face and back, where it "
                                                          "is longest across")
                         : f.bag->film.pleats.empty()
                             ? QString("tape land yellow; drag hoses and gauge along it")
                             : QString("tape land yellow; folds on it: pleats, as tall as they stand; drag "
                                       "them, hoses and gauge along it")) +
                        (s.legend.isEmpty() ? QString() : "; " + s.legend);
                }
                break;
            case Stage::edge:
            case Stage::release:
                if (stage == Stage::release)
                    add_released(s, mesh, up, job, f, k);
                else
                    add_shape(s, mesh, up, 0, 0, plain(stone));
                add_flange(s, job, f, up, k, stage == Stage::release ? k.slides : stone.darker(104), 0);
                if (stage == Stage::edge) add_fittings(s, job, f);
                if (stage == Stage::edge)
                    s.legend =
                        "tape land yellow; rings: bolts    discs: dowels    wedges: slots    crosses: "
                        "jacking "
                        "screws    double rings: air ports; drag them";
                break;
            case Stage::shell:
            case Stage::heat: {
                const double raise = 0.9 * (s.bounds.high.z() - s.bounds.low.z());
                add_shape(s, mesh, up, 0, 0, plain(stone));
                const auto doubled = stage == Stage::shell ? painted_faces(job, mesh) : std::vector<char>();
                const auto first = s.corners.size();
                add_shape(s, mesh, up, raise, shell, [&](std::size_t face, QColor& c, Pattern& p) {
                    const bool kept = plain(shell_colour)(face, c, p);
                    if (!doubled.empty() && doubled[face]) {
                        c = shell_colour.darker(125);
                        p = Pattern::crosses;
                    }
                    return kept;
                });
                if (stage == Stage::shell) {
                    s.surfaces.push_back({first, s.corners.size(), Point(0, 0, raise)});
                    add_doubler_brushes(s, job, k);
                }
                add_flange(s, job, f, up, k, shell_colour, raise);
                if (stage == Stage::heat) {
                    // A part cures in its tool, so does what lies over its plug.
                    s.legend = "the shell lifted off the plug";
                    s.bounds.high.z() += raise;
                    add_thermocouples(s, job, f, mesh, up, raise, k, w);
                    break;
                }
                s.bounds.high.z() += raise;
                s.legend = doubled.empty()
                               ? "the shell lifted off the plug"
                               : "the shell lifted off the plug; crossed: doubled where it is painted";
                break;
            }
            case Stage::back:
                if (view.load && f.trial) {
                    const auto* result = f.trial->find(*view.load);
                    if (result != nullptr && !result->field.empty()) {
                        add_trial(s, *f.trial, *result, k, w, view.apart);
                        return s;
                    }
                }
                add_shape(s, mesh, up, 0, shell, plain(shell_colour));
                add_flange(s, job, f, up, k, shell_colour, 0);
                add_back(s, job, f, up, k);
                break;
            case Stage::part:
                if (view.part_load && f.part_trial && *view.part_load < f.part_trial->loads.size()) {
                    add_part_trial(s, *f.part_trial, job.part.duty, *view.part_load, k, w, view.apart);
                    add_call_flags(s, f, stage, up, w);
                    return s;
                }
                if (f.part && f.part->draped->worst() != nullptr) {
                    add_cloth(s, job, f, up, k, w);
                    if (f.core_panels) add_core_panels(s, *f.core_panels, f.part->draped->piece, up, k);
                    add_zones(s, job, f, up, k, w);
                    add_inserts(s, job, f, up);
                    wide = false;
                    break;
                }
                [[fallthrough]];
            case Stage::brief:
            case Stage::shape:
            case Stage::run:
            case Stage::log: {
                const auto first = s.corners.size();
                add_shape(s, mesh, up, 0, 0, [&](std::size_t face, QColor& c, Pattern& p) {
                    const bool kept = plain(stone)(face, c, p);
                    const auto* corners = stage == Stage::shape && f.shell ? &f.shell->corners
                                          : stage == Stage::part && f.part ? &f.part->corners
                                                                           : nullptr;
                    if (corners != nullptr && face < corners->faces.size() && corners->faces[face]) {
                        c = k.drags;
                        p = Pattern::dots;
                        s.legend = "dotted: corners so tight that cloth bridges them";
                    }
                    return kept;
                });
                wide = false;
                if (stage == Stage::shape) add_repairs(s, f, up, k);
                if (stage == Stage::part && f.part) {
                    add_zone_brushes(s, job, first, k);
                    if (f.core_panels) add_core_panels(s, *f.core_panels, 0, up, k);
                    add_zones(s, job, f, up, k, w);
                    add_inserts(s, job, f, up);
                }
                break;
            }
        }
    if (stage == Stage::shape || stage == Stage::brief || stage == Stage::part) add_dimensions(s, w);
    if (of_piece && !turned) {
        s.shadow = offset(f.edge->tool->rim, f.edge->width);
    } else if (f.split && !f.split->rim.empty() && (!s.comes_apart || stage == Stage::plug) && !turned) {
        const auto& rims = of_mould ? f.split->rims : Loops{f.split->rim};
        s.shadow = wide && f.edge && stage != Stage::split && stage != Stage::plug ? f.edge->outer : rims;
        for (const auto& loop : rims) {
            SceneLine rim;
            for (const auto& p : loop) rim.points.emplace_back(p.x(), p.y(), f.split->foot);
            rim.points.push_back(rim.points.front());
            rim.colour = k.ink;
            if (stage != Stage::plug) s.lines.push_back(std::move(rim));
        }
    }
    if (s.comes_apart) s.ground = s.bounds.low.z();
    if (!s.comes_apart || stage == Stage::plug) add_scale_figure(s, k);
    const int axis = job.cut.across == CutAlong::length
                         ? ((s.bounds.high - s.bounds.low).x() >= (s.bounds.high - s.bounds.low).y() ? 0 : 1)
                         : ((s.bounds.high - s.bounds.low).x() >= (s.bounds.high - s.bounds.low).y() ? 1 : 0);
    s.has_cut = view.cut && !turned && stage != Stage::plug && !s.comes_apart;
    s.cut_normal = Point::Unit(axis);
    s.cut_low = s.cut_high = (s.bounds.low + s.bounds.high) / 2;
    s.cut_low[axis] = s.bounds.low[axis];
    s.cut_high[axis] = s.bounds.high[axis];
    s.cut_origin = s.cut_low + job.cut.at * (s.cut_high - s.cut_low);
    if (flags_stand(job, f, stage)) add_call_flags(s, f, stage, up, w);
    return s;
}

}  // namespace jig::app
