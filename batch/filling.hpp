// What is answered of a preform that has been filled.
#pragma once

#include "batch/verbs.hpp"
#include "core/science/flow/fill.hpp"
#include "core/science/mesh/nearest_face.hpp"

namespace jig::batch {

/// Times, shares, places and masses, all SI.
Json filling_json(const TriangleMesh& mesh, const Filling& filling);

/// The time at a place between the points of its face; null where one of them stays dry.
Json arrival_at(const TriangleMesh& mesh, const NearestFace& nearest, const Filling& filling,
                const Point& at);

/// Pa of the resin there at the end.
double pressure_at(const TriangleMesh& mesh, const NearestFace& nearest, const Filling& filling,
                   const Point& at);

/// The resin's way through a job's own part.
Json infuse_job(const Arguments& arguments, Progress& progress);

}  // namespace jig::batch
