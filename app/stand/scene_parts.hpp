// What scenes are built with: faces, lines and arrows, and the things that several stages show.
#pragma once

#include <functional>

#include "app/stand/scene.hpp"
#include "core/stages/back/trial.hpp"
#include "core/stages/part/trial.hpp"

namespace jig::app {

/// All scenes are built upright: the pull becomes the world's z.
struct Upright {
    Frame frame;
    [[nodiscard]] Point operator()(const Point& p) const {
        return {frame.u.dot(p), frame.v.dot(p), frame.w.dot(p)};
    }
    /// Back to the part's own axes.
    [[nodiscard]] Point back(const Point& p) const {
        return frame.u * p.x() + frame.v * p.y() + frame.w * p.z();
    }
};

void add_triangle(Scene& s, const std::array<Point, 3>& at, const std::array<Point, 3>& normals,
                  const QColor& colour, Pattern pattern);
void add_quad(Scene& s, const Point& a, const Point& b, const Point& c, const Point& d, const QColor& colour,
              Pattern pattern);

/// The shape's faces with soft normals across gentle folds; `colour_of` may leave a face out.
template <class ColourOf>
void add_shape(Scene& s, const TriangleMesh& mesh, const Upright& up, double raise, double grow,
               ColourOf&& colour_of) {
    std::vector<Point> normals(mesh.points.size(), Point::Zero());
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        const Point n = mesh.area_vector2(f);
        for (const auto i : mesh.triangles[f]) normals[i] += n;
    }
    for (auto& n : normals) n.normalize();
    for (std::size_t f = 0; f < mesh.triangles.size(); ++f) {
        QColor colour;
        Pattern pattern = Pattern::plain;
        if (!colour_of(f, colour, pattern)) continue;
        const Point own = mesh.area_vector2(f).normalized();
        std::array<Point, 3> p, n;
        for (std::size_t k = 0; k < 3; ++k) {
            const auto i = mesh.triangles[f][k];
            const Point soft = normals[i].dot(own) > 0.8 ? normals[i] : own;
            p[k] = up(mesh.points[i] + grow * soft) + Point(0, 0, raise);
            n[k] = up(soft);
        }
        add_triangle(s, p, n, colour, pattern);
    }
}

/// A flat surface with holes, looking up.
void add_flat(Scene& s, const Loops& outlines, double z, const QColor& colour, Pattern pattern);
/// The same in any plane of the part: `height` along plane.w.
void add_flat(Scene& s, const Loops& outlines, const Frame& plane, double height, const Upright& up,
              const QColor& colour, Pattern pattern);
/// The same draped over `height` above the plane, in triangles of about `spacing` m.
void add_draped(Scene& s, const Loops& outlines, const Frame& plane,
                const std::function<double(const Point2&)>& height, double spacing, const Upright& up,
                const QColor& colour, Pattern pattern);
/// A line of the part, lifted a little so that it shows on the surface.
void add_line(Scene& s, const Line& line, const Upright& up, const Point& move, const QColor& colour,
              double width, bool dashed = false);
void add_arrow(Scene& s, const Point& from, const Point& way, const QString& text, const Ink& k);

// Things of one stage (scene_split.cpp, scene_plug.cpp, scene_tool.cpp).
/// Flags where thermocouples of the cure that is chosen belong, on the mesh raised by so much; round it the
/// oven with its map, where it has one.
void add_thermocouples(Scene& s, const Job& job, const Findings& f, const TriangleMesh& mesh,
                       const Upright& up, double raise, const Ink& k, const Wording& w);
/// The part's face with its folds, each with its number and what it closes by.
void add_folds(Scene& s, const heat::FoldsUse& use, const Upright& up, const Ink& k, const QColor& plain,
               const Wording& w);
void add_pull(Scene& s, const Findings& f, const Upright& up, const Ink& k, const Wording& w);
void add_pieces(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& stone, const View& view);
void add_plane(Scene& s, const Job& job, const Upright& up);
/// Darts of a layer of the bag, each as wide as it opens, and what `add_bridge` shows.
void add_bag_cuts(Scene& s, const bag::Findings& bag, std::optional<std::size_t> layer, const Upright& up,
                  const Ink& k, const Wording& w);
/// Where a film that is too short stands off the face.
void add_bridge(Scene& s, const bag::Findings& bag, const Upright& up, const Ink& k, const Wording& w);
/// Bolts of a squeeze mould, numbered as they are tightened.
void add_tightening(Scene& s, const Job& job, const Findings& f);
/// Round the whole tool.
void add_wrap(Scene& s, const bag::Wrap& wrap, const Upright& up, const Ink& k);
/// Film of the bag: the middle of its land, its pleats as folds; hoses and gauge; all to be dragged.
void add_film(Scene& s, const bag::Findings& bag, const Upright& up, const Ink& k);
void add_flange(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
                const QColor& plain, double raise);
/// A plug cut up as its plan says; `apart` 0 to 1.
void add_plan(Scene& s, const plug::Plan& plan, const TriangleMesh& surface, const Upright& up, const Ink& k,
              double apart);
/// Moulds that are made without a plug, turned over beside each other, in place of all that was drawn.
void add_moulds(Scene& s, const std::vector<plug::Plan>& plans, const Upright& up, const Ink& k,
                double apart);
void add_back(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k);
/// Cloth as it lies on the part's face: its threads, where it locks, and where corners are bridged; where it
/// starts and its warp, to be dragged.
void add_cloth(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
               const Wording& w);
/// The part's inserts, to be dragged.
void add_inserts(Scene& s, const Job& job, const Findings& f, const Upright& up);
/// Joints between the core's panels, and the panels' names.
/// Those on one piece of the mould; all of a mould in one.
void add_core_panels(Scene& s, const part::CorePanels& panels, int piece, const Upright& up, const Ink& k);
/// The part's zones: their borders, names and thicknesses.
void add_zones(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k,
               const Wording& w);
/// A face's colour where a zone lies on it.
QColor in_zone(const QColor& colour, const Ink& k);
/// The faces from `first_corner` on take the brush that paints a zone.
void add_zone_brushes(Scene& s, const Job& job, std::size_t first_corner, const Ink& k);

/// A brush for each zone that is painted, by its name, one to begin with where there is none, and one that
/// takes off what others laid.
void add_paint_brushes(Scene& s, const std::vector<std::pair<std::size_t, QString>>& painted,
                       const QString& to_begin, const Ink& k);
/// How thick resin leaves the plies of a part that fills: at a share below a half as it is full, else as it
/// gels. Bands on one scale for both.
void add_flow_thickness(Scene& s, const bag::Flow& flow, const Upright& up, const Ink& k, double share);

/// Resin as it comes over the part: bands of time, the front at a share of the whole, hoses that can be
/// dragged.
void add_flow(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k, const Wording& w,
              double share);
/// The face in the state that its log has brought it to: bare stone, dotted while coats are missing, crossed
/// where it is worn or wrong, plain sage when it is ready; over it the way that each coat is laid.
void add_released(Scene& s, const TriangleMesh& mesh, const Upright& up, const Job& job, const Findings& f,
                  const Ink& k);
/// Fittings of the flange, with the way that they can be dragged along.
void add_fittings(Scene& s, const Job& job, const Findings& f);
/// The part under one of its loads: drawn as the tool is.
void add_part_trial(Scene& s, const part::Trial& trial, const part::Duty& duty, std::size_t load,
                    const Ink& k, const Wording& w, double exaggeration);
/// The tool under one load: shape exaggerated, displacement in steps of one ramp with figures on their lines.
void add_trial(Scene& s, const back::Trial& trial, const back::CaseResult& result, const Ink& k,
               const Wording& w, double exaggeration);

}  // namespace jig::app
