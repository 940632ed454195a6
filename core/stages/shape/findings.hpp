#pragma once

#include "core/base/shared.hpp"
#include "core/science/mesh/measure.hpp"
#include "core/science/mesh/rays.hpp"
#include "core/science/mesh/repair.hpp"
#include "core/stages/brief/choices.hpp"
#include "core/stages/shape/choices.hpp"
#include "core/stages/stage.hpp"

namespace jig::shape {

struct Findings {
    std::vector<Figure> figures;
    TriangleMesh mesh;
    Topology topology;
    Measures measures;
    Bends bends;
    std::vector<Repair> repairs;
    std::vector<Repair> left;  ///< what is open or crowded still
    double flat_wall = 0;      ///< m², the largest standing wall without any curve
    Derived<RayMesh> rays;
    bool operator==(const Findings&) const = default;
};

/// `bytes` is the attached mesh as it came, for ShapeKind::mesh. Throws InputError, Cancelled.
Findings evaluate(const Choices& choices, const std::string& bytes, Progress& progress);
Calls calls(const Choices& choices, const Findings& findings, const brief::Choices& brief);

}  // namespace jig::shape
