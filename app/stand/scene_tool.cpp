// The flange and the back on the stand.
#include <algorithm>
#include <cmath>

#include "app/stand/scene_parts.hpp"

namespace jig::app {

void add_flange(Scene& s, const Job& job, const Findings& f, const Ink& k, const QColor& plain,
                double raise) {
    if (!f.edge || !f.split) return;
    const double z = f.split->foot + raise;
    const auto tape_outer = offset(f.split->joined, job.edge.trim + job.edge.channel + job.edge.tape_land);
    add_flat(s, taken_off(f.edge->tape_inner, f.split->rims), z, plain, Pattern::plain);
    add_flat(s, taken_off(tape_outer, f.edge->tape_inner), z, k.tape, Pattern::plain);
    add_flat(s, taken_off(f.edge->outer, tape_outer), z, plain, Pattern::plain);
}

/// Egg-crate: plates at the pitch both ways, from the shell's outer contour up to one level.
void add_ribs(Scene& s, const Job& job, const Findings& f, const Upright& up, const Ink& k, double shell) {
    if (job.back.kind == BackKind::none || !f.shape || !f.split) return;
    const double top = f.split->foot + f.split->map.depth + job.back.height + shell;
    const auto colour = hatch_ground(Hatch::ply_wood, k);
    const auto& mesh = split::mould_mesh(*f.shape, *f.split);
    const auto& topology = split::mould_topology(*f.shape, *f.split);
    for (int way = 0; way < 2; ++way) {
        const Frame across =
            way == 0 ? Frame{up.frame.v, up.frame.w, up.frame.u} : Frame{up.frame.w, up.frame.u, up.frame.v};
        double low = 1e30, high = -1e30;
        for (const auto& p : mesh.points) {
            low = std::min(low, across.w.dot(p));
            high = std::max(high, across.w.dot(p));
        }
        const int count = std::max(2, static_cast<int>(std::floor((high - low) / job.back.pitch)) + 1);
        std::vector<double> heights;
        const double start = (low + high) / 2 - (count - 1) * job.back.pitch / 2;
        for (int i = 0; i < count; ++i)
            heights.push_back(std::clamp(start + i * job.back.pitch, low + 1e-3, high - 1e-3));
        Progress quiet;
        for (const auto& cut : sections(mesh, topology, across, heights, quiet)) {
            auto lines = cut.open_lines;
            lines.insert(lines.end(), cut.loops.begin(), cut.loops.end());
            for (const auto& line : lines) {
                for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                    const auto world = [&](const Point2& q) { return up(across.lift(q, cut.height)); };
                    Point a = world(line[i]), b = world(line[i + 1]);
                    a.z() += shell;
                    b.z() += shell;
                    add_quad(s, a, b, {b.x(), b.y(), top}, {a.x(), a.y(), top}, colour, Pattern::grain);
                }
            }
        }
    }
}

}  // namespace jig::app
