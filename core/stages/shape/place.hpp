#pragma once

#include "core/science/mesh/triangle_mesh.hpp"
#include "core/stages/shape/choices.hpp"

namespace jig::shape {

/// Puts the shape on the bench as it was chosen: scaled, mirrored across its length (x), the side up, and the
/// tool face outwards. Faces keep looking outwards when mirrored.
void put_on_bench(TriangleMesh& mesh, const Placing& place);

}  // namespace jig::shape
