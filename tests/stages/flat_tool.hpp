// A flat strip as a tool, whose answers are those of beams.
#pragma once

#include "core/stages/back/trial.hpp"
#include "core/stages/edge/flange.hpp"
#include "tests/job/fixtures.hpp"

namespace fixtures {

using namespace jig;

/// A flat strip as a tool: a face of length × width in the plane, and a flange round it.
struct FlatTool {
    edge::ToolFace face;
    edge::Choices edge;
    shell::Choices shell;
    shell::Findings found;
    back::Choices back;
    TriangleMesh corners;
    double length, width;

    FlatTool(double l, double w) : length(l), width(w) {
        const double rim = 0.02;
        TriangleMesh mesh;
        const int n = 24, m = 3;
        for (int j = 0; j <= m; ++j) {
            for (int i = 0; i <= n; ++i)
                mesh.points.emplace_back((l - 2 * rim) * i / n, (w - 2 * rim) * j / m, 0);
        }
        const auto at = [&](int i, int j) { return static_cast<std::uint32_t>(j * (n + 1) + i); };
        for (int j = 0; j < m; ++j) {
            for (int i = 0; i < n; ++i) {
                mesh.triangles.push_back({at(i, j), at(i + 1, j), at(i + 1, j + 1)});
                mesh.triangles.push_back({at(i, j), at(i + 1, j + 1), at(i, j + 1)});
            }
        }
        face.frame = {Point::UnitX(), Point::UnitY(), Point::UnitZ()};
        face.rimmed = edge::rimmed(mesh, face.frame, {rectangle(-rim, -rim, l - rim, w - rim)},
                                   FlangeLie::flat, 0, rim, 0.03);
        face.low = {-rim, -rim, 0};
        face.high = {l - rim, w - rim, 0};
        shell.layers.assign(6, {LayerKind::ply, "glass mat 600", 0, 0});
        shell.resin = "polyester, general";
        found.resin = need(fixtures::shop().resins, shell.resin, "test");
        found.stack = sum_stack(shell.layers, found.resin, shell.how, fixtures::shop(), "test");
        back.kind = BackKind::none;
        back.feet.inset = 0;
    }
    [[nodiscard]] back::ToolInputs inputs() const {
        return {face, edge, shell, found, back, fixtures::shop(), corners, nullptr};
    }
    [[nodiscard]] const Laminate& laminate() const { return found.stack.laminate; }
};

}  // namespace fixtures
