// What the shape leaves as.
#include "app/window/exports/common.hpp"
#include "core/job/job_file.hpp"
#include "core/science/mesh/mesh_file.hpp"
#include "core/science/mesh/step.hpp"
#include "core/stages/shape/starter_meshes.hpp"

namespace jig::app {
namespace {

QString shape_mesh(const Outgoing& out, Progress&) {
    const auto path = out.path.toStdString();
    write_atomically(write_mesh(needed(out.findings.shape, "shape").mesh, path), path);
    return written(out.path);
}

/// A turned profile leaves as the faces that it is, everything else as its facets.
QString turned_step(const Outgoing& out, Progress&) {
    if (out.job.shape.kind != ShapeKind::turned)
        throw InputError("shape", "only a turned shape is known exactly enough for STEP",
                         "export this one as STL, OBJ or PLY");
    write_atomically(write_step_turned(shape::turned_profile(out.job.shape.turned)), out.path.toStdString());
    return written(out.path);
}

QString turned(const Job& job, const Findings&) {
    return job.shape.kind == ShapeKind::turned ? QString() : "only a turned shape is known exactly";
}

}  // namespace

std::vector<Export> exports_of_shape() {
    return {
        {"x-stl", Stage::shape, "Export the shape as a mesh…", "Meshes (*.stl *.obj *.ply)", ".stl",
         shape_there, false, shape_mesh},
        {"x-step", Stage::shape, "Export the turned shape as STEP…", "STEP (*.step)", ".step", turned, false,
         turned_step},
    };
}

}  // namespace jig::app
