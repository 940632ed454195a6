// Whether each face slides, drags or locks when the mould leaves along a pull.
#pragma once

#include "core/base/progress.hpp"
#include "core/science/mesh/rays.hpp"
#include "core/science/mesh/topology.hpp"

namespace jig {

enum class Release : std::uint8_t {
    slides,  ///< turns towards the pull by more than the drag angle
    drags,   ///< within the drag angle of standing straight
    locks,   ///< turns away from the pull, or something stands over it
    open,    ///< a flat foot that the mould does not cover
};

inline constexpr double kDraftNoise = 1.7453e-4;  ///< rad: what single-precision files cannot tell from none
inline constexpr double kFlatFoot = 0.9998;       ///< of one: how squarely a foot lies across the pull
inline constexpr double kFootReach = 1e-4;        ///< of the diagonal: how near the shape's end

struct DraftRules {
    double drag_angle = 0.0175;  ///< rad of draft below which a face drags
    bool foot_open = false;      ///< leave faces out that lie flat at the foot of the pull
    double samples = 40000;      ///< rays shared out by area beyond the one that each face gets
};

struct DraftMap {
    std::vector<Release> faces;  ///< by face
    std::vector<float> shadow;   ///< by face, the part of it (0..1) that something stands over
    double area = 0, slides = 0, drags = 0, locks = 0,
           open = 0;       ///< m²; slides + drags + locks + open = area
    double shadowed = 0;   ///< m², the part of locks that has draft but is overhung
    double projected = 0;  ///< m², seen along the pull
    double depth = 0;      ///< m along the pull
    double min_draft = 0;  ///< rad, of the faces the mould covers
    std::size_t worst_face = 0;
    bool operator==(const DraftMap&) const = default;
};

/// Draft of a face is asin(n·p). A face locks when that is below -0.01° or where a ray from it along the pull
/// meets the shape (offset off the face by 1e-5 of the diagonal). Partly overhung faces count by the share of
/// their rays that are blocked. Linear in faces and rays, on all cores; throws Cancelled.
DraftMap draft(const TriangleMesh& mesh, const RayMesh& rays, const Point& pull, const DraftRules& rules,
               Progress& progress);

/// The angle test alone, m² that turn away from the pull; for searches.
double locked_by_angle(const TriangleMesh& mesh, const Point& pull, double& drags, double drag_angle);

}  // namespace jig
