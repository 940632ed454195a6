// What stands on the stand: surfaces, lines and dimensions as plain values, the same for OpenGL and for
// paper.
#pragma once

#include <array>
#include <optional>
#include <QColor>
#include <QString>
#include <vector>

#include "app/theme/ink.hpp"
#include "core/job/evaluate.hpp"
#include "core/stages/back/trial.hpp"

namespace jig::app {

/// How a surface is drawn beside its colour, so that state is never colour alone.
enum class Pattern { plain = 0, dots = 1, crosses = 2, grain = 3, hatch = 4 };

struct Corner {
    float x, y, z;
    float nx, ny, nz;
    float r, g, b;
    float pattern;
    bool operator==(const Corner&) const = default;
};

struct SceneLine {
    std::vector<Point> points;
    QColor colour;
    double width = 1;
    bool dashed = false;
};

/// A draughting dimension between two points, drawn `off` away from them.
struct Dimension {
    Point a, b;
    Point off = Point::Zero();
    QString text;
    std::vector<Dimension> elsewhere = {};  ///< where it may stand as well: dimensions_in() chooses
};

struct SceneLabel {
    Point at;
    QString text;
};

/// Corners that show the part or a piece of it, so that a touch can be told in the part's own place.
struct SceneSurface {
    std::size_t from = 0, to = 0;  ///< corners
    Point move = Point::Zero();    ///< that it is drawn away from its place
};

/// Something that can be painted on those surfaces.
struct Brush {
    QString name;
    Paint paint = Paint::show;
    Point toward = Point::UnitZ();  ///< of faces given to a piece, its pull in the part's own axes
    QColor colour;
    /// Of the stage's zones, the one that it paints; none where the first stroke begins one.
    std::optional<std::size_t> zone{};
};

/// Something that sits on a way and can be dragged along it, or freely over the surface.
struct Mark {
    Point at;
    Fitting kind = Fitting::bolt;
    int number = -1;    ///< in the job's list; -1 for what cannot be dragged
    bool free = false;  ///< slides anywhere over the surface instead of along the way
    QString caption = {};
};

/// The place of a call.
struct CallFlag {
    Point at;
    int number = 1;  ///< as the slip numbers it
    Severity severity = Severity::note;
    QString key, said;
};

struct Scene {
    std::vector<Corner> corners;  ///< three to a triangle
    std::vector<Corner> coarse;   ///< the same with less detail, for while it moves; empty where they are few
    std::uint64_t revision = 0;   ///< scenes of one number other than 0 have the same corners
    std::vector<SceneSurface> surfaces;
    std::vector<Brush> brushes;                                     ///< empty where nothing can be painted
    Frame upright{Point::UnitX(), Point::UnitY(), Point::UnitZ()};  ///< the scene's axes in the part's
    std::vector<SceneLine> lines;
    std::vector<Dimension> dimensions;
    std::vector<SceneLabel> labels;
    std::vector<CallFlag> flags;
    Loops shadow;  ///< outline on the ground, in the world's x and y
    double ground = 0;
    Bounds bounds;
    std::optional<Bounds> aside;                                    ///< the same with what lies aside
    Point cut_origin = Point::Zero(), cut_normal = Point::UnitX();  ///< of the section
    Point cut_low = Point::Zero(), cut_high = Point::Zero();        ///< travel of the cut's handle
    bool has_cut = false;
    bool has_plane = false;  ///< of a split, with a handle of its own
    std::array<Point, 4> plane{Point::Zero(), Point::Zero(), Point::Zero(), Point::Zero()};  ///< its corners
    Point plane_at = Point::Zero();                                                          ///< its middle
    Point plane_low = Point::Zero(), plane_high = Point::Zero();  ///< travel of its handle
    bool comes_apart = false;                                     ///< whether there is anything to pull apart
    QString slider = "apart";                                     ///< what the slider does then
    std::vector<Mark> marks;
    std::vector<Point> mark_way;  ///< closed, even steps of their share of it
    QString legend;               ///< one line under the stand
};

/// Marks of a front that was seen are numbered from here on; hoses' ends before.
inline constexpr int kSeenMarks = 10000;
/// What stands on the rim of a bag is numbered from here on, by its place among `bag::Rim::things`.
inline constexpr int kRimMarks = 20000;
/// Where cloth starts, and after it the handle of its warp.
inline constexpr int kClothMarks = 30000;
/// Corners of its cuts, one cut after the other.
inline constexpr int kCutMarks = 40000;

/// How the maker looks at it: nothing that the job keeps.
struct View {
    double apart = 0.5;                    ///< how far the pieces are drawn apart along their pulls, 0 to 1
    std::optional<LoadCase> load;          ///< that the tool is shown under; none for the back as it is built
    std::optional<std::size_t> part_load;  ///< that the part is shown under; none for it as it is made
    std::optional<std::size_t> bag_layer;  ///< whose darts are shown; none for the one that wants most
    bool thickness = false;                ///< of an infused part's plies, in place of the front
    bool cut = true;                       ///< whether the section at the cut is seen beside it
};

/// The scene of a stage. Where its findings are missing, the shape alone, and nothing where that is missing.
Scene scene_of(const Job& job, const Findings& findings, Stage stage, const Ink& ink, const Wording& wording,
               const View& view = {});

/// One plan alone, for its picture beside others: the frame's w is up.
Scene scene_of_plan(const plug::Plan& plan, const TriangleMesh& surface, const Frame& frame, const Ink& ink);

/// Where the plane of a split stands when its handle is dragged to this share of its travel.
std::array<double, 3> plane_dragged_to(const Job& job, const Findings& findings, double share);

}  // namespace jig::app
